import { keptOutSentence, takerOf } from 'dot-hop/explain';
import type { Why, WhyCondition, WhyHop, WhyState } from 'dot-hop';

/** The states from the highest rank down, the one that shows lit, each term of their conditions lit when it is true. */
export function Ladder({ why }: { readonly why: Why }) {
  const taker = takerOf(why);
  return (
    <section className="ladder" aria-label={`states of ${why.track} by rank`}>
      <h2>{why.track}, by rank</h2>
      <ol>
        {why.states
          .filter(({ takenBy }) => takenBy === undefined)
          .map((state) => (
            <Rung key={state.name} state={state} why={why} />
          ))}
        {taker === undefined ? null : (
          <li className="showing" data-testid={`taken-${why.track}`}>
            <span className="rank" />
            <span className="name">{why.state}</span>
            <span className="terms">
              <i>taken by {taker}</i>
            </span>
          </li>
        )}
      </ol>
    </section>
  );
}

const kept: Record<WhyHop['kept'], string> = {
  open: 'open',
  condition: 'waits for its condition',
  span: 'not in its span',
  instant: 'waits for its instant',
  while: 'cannot show now',
};

function Rung({ state, why }: { readonly state: WhyState; readonly why: Why }) {
  const shows = why.state;
  const showing = state.keptOut === 'shows';
  const classes = `${showing ? 'showing' : ''} ${state.wantsIn && !showing ? 'waiting' : ''}`;
  return (
    <li
      className={classes}
      data-testid={`state-${state.name}`}
      title={`${state.name} ${keptOutSentence(state, shows)}`}
    >
      <span className="rank">{state.priority}</span>
      <span className="name">{state.name}</span>
      <span className="terms">
        {state.while === undefined || isSaidBy(state.while, state.when) ? null : (
          <Condition word="while" condition={state.while} />
        )}
        {state.when === undefined ? null : <Condition word="when" condition={state.when} />}
        {showing
          ? why.hops.map(({ to, remembered, kept: reason }) => (
              <code key={to} className={remembered ? 'on' : 'off'} title={`hop to ${to}: ${kept[reason]}`}>
                → {to}
              </code>
            ))
          : null}
        {state.kind === 'bare' ? <i>{state.priority === 0 ? 'rest' : 'by a hop'}</i> : null}
      </span>
    </li>
  );
}

/** Whether a `when` has all the parts of a `while`: they are shown once. */
function isSaidBy(said: WhyCondition, by: WhyCondition | undefined): boolean {
  const parts = new Set(by?.parts.map(({ text }) => text));
  return said.parts.every(({ text }) => parts.has(text));
}

/** The text is the document's own; its parts are lit where they stand in it. */
function Condition({ word, condition }: { readonly word: string; readonly condition: WhyCondition }) {
  return (
    <>
      <i>{word}</i>
      {condition.parts.map(({ text, on }, i) => (
        <code key={i} className={on ? 'on' : 'off'}>
          {text}
        </code>
      ))}
    </>
  );
}
