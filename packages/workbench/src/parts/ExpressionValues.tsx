import type { ControllerDefinition, SignalValue } from 'dot-hop';
import { useMemo, useRef } from 'react';
import { useWorkbench } from '../character/store.js';
import { useStage, valueNow } from '../stage/live.js';

/** The signals that an expression speaks of, each once, in its order. */
function namesIn(expression: string, { signals = {}, derived = {} }: ControllerDefinition): string[] {
  // What stands in quotes is an option, and no name.
  const words = expression.replace(/'[^']*'|"[^"]*"/g, ' ').match(/[A-Za-z_]\w*(?:-\w+)*/g) ?? [];
  return [...new Set(words)].filter((word) => Object.hasOwn(signals, word) || Object.hasOwn(derived, word));
}

function shown(value: SignalValue | undefined): string {
  if (value === undefined) return '';
  if (typeof value === 'number') return String(Number(value.toFixed(Math.abs(value) >= 100 ? 0 : 2)));
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return typeof value === 'string' ? value : value.map((one) => Number(one.toFixed(2))).join(', ');
}

/** What each part of an expression is just now, on the stage. */
export function ExpressionValues({ expression }: { readonly expression: string }) {
  const definition = useWorkbench((state) => state.definition);
  const names = useMemo(() => namesIn(expression, definition), [expression, definition]);
  const box = useRef<HTMLParagraphElement>(null);
  useStage((performer) => {
    for (const part of box.current?.querySelectorAll<HTMLElement>('[data-part]') ?? []) {
      const now = performer === undefined ? '' : shown(valueNow(performer, part.dataset.part!));
      if (part.textContent !== now) part.textContent = now;
    }
  });
  if (names.length === 0) return null;
  return (
    <p className="parts" ref={box} role="group" aria-label="what its parts are just now">
      {names.map((name) => (
        <span key={name}>
          {name} <b data-part={name} />
        </span>
      ))}
    </p>
  );
}
