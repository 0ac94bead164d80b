import type { VarietyDefinition } from 'dot-hop';
import { tellCue } from 'dot-hop/edit';
import { act, useWorkbench } from '../../character/store.js';
import { TextBox } from '../../parts/TextBox.js';
import { Choice, namesWritten } from '../../parts/ui.js';

const picks = { turn: 'one after the other', chance: 'by chance' };

/** By which names a cue is told, one of them each time, so that two footfalls do not sound alike. */
export function CueNames({
  cue,
  variety,
}: {
  readonly cue: string;
  readonly variety: VarietyDefinition | undefined;
}) {
  const put = (fields: VarietyDefinition): void =>
    act(tellCue(useWorkbench.getState().definition, cue, fields), `how ${cue} is told`);
  const rename = (text: string): void => {
    const any = namesWritten(text);
    const { weights, ...plain } = variety ?? {};
    put({ ...plain, ...(weights?.length === any.length && { weights }), any });
  };
  return (
    <>
      <TextBox
        label={`${cue} is reported as one of`}
        placeholder={`${cue}, another`}
        className="number wide"
        value={variety?.any.join(', ') ?? ''}
        onChange={rename}
      />
      {variety === undefined ? null : (
        <Choice
          label={`${cue} is picked`}
          value={variety.pick ?? 'turn'}
          options={picks}
          onChange={(pick) => put(pick === 'turn' ? { any: variety.any } : { ...variety, pick })}
        />
      )}
    </>
  );
}
