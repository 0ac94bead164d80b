import { useEffect, useState } from 'react';
import { useFindings, whoTakesOver } from '../../character/findings.js';
import type { Row } from '../../character/findings.js';
import { goTo, select, useWorkbench } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { StatePicture } from '../../parts/StatePicture.js';
import { Choice, optionsOf } from '../../parts/ui.js';

/** The most rows of the table; of more, something should be known of the situation. */
const most = 60;

/** Who takes over in which situation, read from the top: the first row that fits. What is known makes the table shorter. */
export function Winners() {
  const definition = useWorkbench((state) => state.definition);
  const isLooking = useFindings((state) => state.isLooking);
  const [known, setKnown] = useState('');
  const [track, setTrack] = useState('body');
  const [rows, setRows] = useState<readonly Row[] | undefined>([]);
  const [isAsking, setIsAsking] = useState(true);
  useEffect(() => {
    let isWanted = true;
    setIsAsking(true);
    void whoTakesOver(track, known).then((found) => {
      if (!isWanted) return;
      setRows(found);
      setIsAsking(false);
    });
    return () => {
      isWanted = false;
    };
  }, [definition, known, track, isLooking]);
  const tracks = ['body', ...Object.keys(definition.tracks ?? {})];
  return (
    <div className="winners">
      {tracks.length > 1 ? (
        <Choice label="track" value={track} options={optionsOf(tracks)} onChange={setTrack} />
      ) : null}
      <Condition
        label="when it is known that"
        value={known === '' ? undefined : known}
        hint="nothing is known: every situation"
        onChange={(value) => setKnown(value ?? '')}
      />
      {rows === undefined ? (
        <p className="hint">That cannot be asked: a name or a sign in it is not known.</p>
      ) : (
        <div className="table" aria-busy={isAsking}>
          <table>
            <caption>Read from the top: the first row that fits says who takes over.</caption>
            <thead>
              <tr>
                <th scope="col">rank</th>
                <th scope="col">takes over</th>
                <th scope="col">when</th>
                <th scope="col">such as</th>
                <th scope="col">in place of</th>
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, most).map((row, i) => (
                <tr key={i}>
                  <td>{[...row.groups, row.rank].join(' ')}</td>
                  <td>
                    <button
                      type="button"
                      className="small"
                      onClick={() => {
                        goTo('rank');
                        select({ state: row.state });
                      }}
                    >
                      <StatePicture name={row.state} size={28} /> {row.state}
                    </button>
                  </td>
                  <td>
                    {row.terms.length === 0 ? (
                      <small>otherwise</small>
                    ) : (
                      row.terms.map(({ text, on }) => (
                        <span key={text} className={`term ${on ? 'on' : 'off'}`}>
                          {on ? '' : 'not '}
                          {text}
                        </span>
                      ))
                    )}
                    {row.once ? <small> at the moment it becomes true</small> : null}
                  </td>
                  <td>
                    <small>{row.example}</small>
                  </td>
                  <td>
                    <small>{row.over.join(', ')}</small>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > most ? <p className="hint">and {rows.length - most} more rows</p> : null}
        </div>
      )}
    </div>
  );
}
