import type { ReactNode } from 'react';
import {
  Button,
  FieldError,
  Group,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  NumberField,
  Popover,
  Select,
  SelectValue,
  Tooltip,
  TooltipTrigger,
} from 'react-aria-components';

/** A button with a picture, whose name and key are told when it is pointed at. */
export function IconButton({
  label,
  keys,
  children,
  isDisabled = false,
  isOn,
  onPress,
}: {
  readonly label: string;
  readonly keys?: string;
  readonly children: ReactNode;
  readonly isDisabled?: boolean;
  /** Of a button that stays pressed, whether it is. */
  readonly isOn?: boolean;
  readonly onPress: () => void;
}) {
  return (
    <TooltipTrigger delay={500}>
      <Button
        className={`icon${isOn === true ? ' on' : ''}`}
        aria-label={label}
        {...(isOn === undefined ? {} : { 'aria-pressed': isOn })}
        isDisabled={isDisabled}
        onPress={onPress}
      >
        {children}
      </Button>
      <Tooltip className="tip">
        {label}
        {keys === undefined ? null : <kbd>{keys}</kbd>}
      </Tooltip>
    </TooltipTrigger>
  );
}

/** A whole number with its name; the change is made when it is left or entered. */
export function NumberBox({
  label,
  value,
  least = 0,
  most = 9999,
  step = 1,
  unit,
  isDisabled = false,
  onChange,
}: {
  readonly label: string;
  readonly value: number | undefined;
  readonly least?: number;
  readonly most?: number;
  readonly step?: number;
  readonly unit?: string;
  readonly isDisabled?: boolean;
  readonly onChange: (value: number) => void;
}) {
  return (
    <NumberField
      className="number"
      value={value ?? NaN}
      minValue={least}
      maxValue={most}
      step={step}
      isDisabled={isDisabled}
      formatOptions={{ useGrouping: false, maximumFractionDigits: 3 }}
      onChange={(now) => {
        if (Number.isFinite(now) && now !== value) onChange(now);
      }}
    >
      <Label>{label}</Label>
      <Group>
        <Input />
        {unit === undefined ? null : <span className="unit">{unit}</span>}
      </Group>
      <FieldError />
    </NumberField>
  );
}

/** Names as the options of a choice, each under itself. */
export const optionsOf = (names: readonly string[]): Record<string, string> =>
  Object.fromEntries(names.map((one) => [one, one]));

/** The names in a line of text, parted by commas or spaces. */
export const namesWritten = (text: string): string[] => text.split(/[\s,]+/).filter((one) => one !== '');

/** One of several, by name. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: Readonly<Record<T, string>>;
  readonly onChange: (value: T) => void;
}) {
  return (
    <Select
      className="choice"
      value={value}
      onChange={(key) => {
        if (key !== null && key !== value) onChange(key as T);
      }}
    >
      <Label>{label}</Label>
      <Button>
        <SelectValue />
        <span aria-hidden="true">▾</span>
      </Button>
      <Popover className="list">
        <ListBox>
          {Object.entries<string>(options).map(([key, words]) => (
            <ListBoxItem key={key} id={key}>
              {words}
            </ListBoxItem>
          ))}
        </ListBox>
      </Popover>
    </Select>
  );
}

/** Something that is so or not. */
export function Check({
  label,
  isOn,
  isDisabled = false,
  onChange,
}: {
  readonly label: string;
  readonly isOn: boolean;
  readonly isDisabled?: boolean;
  readonly onChange: (isOn: boolean) => void;
}) {
  return (
    <label className="check">
      <input
        type="checkbox"
        checked={isOn}
        disabled={isDisabled}
        onChange={(event) => onChange(event.target.checked)}
      />{' '}
      {label}
    </label>
  );
}
