/** Several views of one room, of which one is looked at. */
export function ViewSwitch<T extends string>({
  label,
  views,
  current,
  onChange,
}: {
  readonly label: string;
  readonly views: Readonly<Record<T, string>>;
  readonly current: T;
  readonly onChange: (view: T) => void;
}) {
  return (
    <div className="row views" role="group" aria-label={label}>
      {(Object.keys(views) as T[]).map((one) => (
        <button
          key={one}
          type="button"
          className="small"
          aria-pressed={current === one}
          onClick={() => onChange(one)}
        >
          {views[one]}
        </button>
      ))}
    </div>
  );
}
