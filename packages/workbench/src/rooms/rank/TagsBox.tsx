import { TextBox } from '../../parts/TextBox.js';
import { namesWritten } from '../../parts/ui.js';

/** The tags of a state, or of all states of a group, in a line. */
export function TagsBox({
  label,
  tags = [],
  onChange,
}: {
  readonly label: string;
  readonly tags: readonly string[] | undefined;
  readonly onChange: (tags: string[] | undefined) => void;
}) {
  return (
    <TextBox
      label={label}
      value={tags.join(', ')}
      placeholder="none"
      onChange={(text) => {
        const now = namesWritten(text);
        onChange(now.length === 0 ? undefined : now);
      }}
    />
  );
}
