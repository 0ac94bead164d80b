import { placeCue, placeSpan } from 'dot-hop/edit';
import { MapPin, Minus } from 'lucide-react';
import { useState } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import { act, useWorkbench } from '../../character/store.js';
import { IconButton } from '../../parts/ui.js';

/** A new cue on the selected frame, or a span over the selected ones. */
export function AddName({ name, frames }: { readonly name: string; readonly frames: readonly number[] }) {
  const [written, setWritten] = useState('');
  const word = written.trim();
  const pin = (): void => {
    const { definition } = useWorkbench.getState();
    const before = [definition.clips[name]!.cues?.[word] ?? []].flat();
    act(placeCue(definition, name, word, [...before, ...frames]));
    setWritten('');
  };
  const span = (): void => {
    const range = { first: Math.min(...frames), last: Math.max(...frames) };
    act(placeSpan(useWorkbench.getState().definition, name, word, range));
    setWritten('');
  };
  return (
    <div className="add">
      <TextField aria-label="name of a new cue or span" value={written} onChange={setWritten}>
        <Label className="hidden">name of a new cue or span</Label>
        <Input
          placeholder="name a cue or span"
          onKeyDown={(event) => event.key === 'Enter' && word !== '' && pin()}
        />
      </TextField>
      <IconButton label="cue on the selected frame" isDisabled={word === ''} onPress={pin}>
        <MapPin size={14} /> cue
      </IconButton>
      <IconButton label="span over the selected frames" isDisabled={word === ''} onPress={span}>
        <Minus size={14} /> span
      </IconButton>
    </div>
  );
}
