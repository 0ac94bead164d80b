import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from 'react-aria-components';
import { IconButton } from '../parts/ui.js';
import { steps } from './steps.js';
import { leave, useVisit, visit } from './visit.js';

/** The way through the rooms: a card that points at one thing after the other, and stops nothing. */
export function Tour() {
  const step = useVisit((state) => state.step);
  return step === undefined ? null : <Stop key={step} step={step} />;
}

function Stop({ step }: { readonly step: number }) {
  const { at, title, says } = steps[step]!;
  const ring = useRef<HTMLDivElement>(null);
  const isLast = step === steps.length - 1;
  useEffect(() => {
    let frame = 0;
    // What is pointed at may come later, and moves when the page does.
    const follow = (): void => {
      frame = requestAnimationFrame(follow);
      const box = document.querySelector(at)?.getBoundingClientRect();
      const { style } = ring.current!;
      style.display = box === undefined ? 'none' : '';
      if (box === undefined) return;
      style.transform = `translate(${box.left - 3}px, ${box.top - 3}px)`;
      style.width = `${box.width + 6}px`;
      style.height = `${box.height + 6}px`;
    };
    follow();
    return () => cancelAnimationFrame(frame);
  }, [at]);
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') leave();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <>
      <div ref={ring} className="ring" aria-hidden="true" data-testid="ring" />
      <section className="tour" aria-label="a tour of the rooms">
        <div className="row spread">
          <b>
            {title} <small>{`${step + 1} of ${steps.length}`}</small>
          </b>
          <IconButton label="leave the tour" keys="Esc" onPress={leave}>
            <X size={14} />
          </IconButton>
        </div>
        <p aria-live="polite">{says}</p>
        <div className="row">
          <Button className="small" isDisabled={step === 0} onPress={() => visit(step - 1)}>
            Back
          </Button>
          <Button className="small lamp" autoFocus onPress={() => (isLast ? leave() : visit(step + 1))}>
            {isLast ? 'Begin' : 'Next'}
          </Button>
        </div>
      </section>
    </>
  );
}
