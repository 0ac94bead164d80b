import { useState } from 'react';
import { Input, Label, TextField } from 'react-aria-components';

/** A line of text with its name; the change is made when it is left or entered, and Escape takes it back. */
export function TextBox({
  label,
  value,
  placeholder,
  className = 'number',
  hidesLabel = false,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly className?: string;
  /** Whether the name is for who does not see the page alone. */
  readonly hidesLabel?: boolean;
  readonly onChange: (value: string) => void;
}) {
  const [written, setWritten] = useState(value);
  const [shown, setShown] = useState(value);
  // What is changed elsewhere shows here, unless somebody is just writing.
  if (shown !== value) {
    setShown(value);
    setWritten(value);
  }
  const commit = (): void => {
    const now = written.trim();
    if (now !== value) onChange(now);
    // A refused value gives way to what stands.
    setWritten(value);
    setShown('\u0000');
  };
  return (
    <TextField className={className} value={written} onChange={setWritten} onBlur={commit}>
      <Label className={hidesLabel ? 'hidden' : ''}>{label}</Label>
      <Input
        {...(placeholder === undefined ? {} : { placeholder })}
        spellCheck={false}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          else if (event.key === 'Escape') setWritten(value);
        }}
      />
    </TextField>
  );
}
