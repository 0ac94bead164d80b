/** The colours of the overlay: the harbour at dusk. */
export const colours = {
  ground: '#1d1930',
  panel: '#2a2443',
  line: '#4a4268',
  text: '#f0e6da',
  dim: '#a99fbd',
  lamp: '#ffc95c',
  good: '#7fc8a0',
  states: ['#e8a33d', '#5fb3a8', '#c98bc9', '#7fa8e0', '#e07a5f', '#a8c66c', '#d9c7a0', '#8f8fd9', '#d9798f'],
} as const;

/** The colour of the `index`-th state. */
export const colourOf = (index: number): string => colours.states[index % colours.states.length]!;

export const style = `
:host { all: initial }
.overlay { position: fixed; inset: 0 0 0 auto; width: 396px; box-sizing: border-box; padding: 10px 12px; overflow-y: auto;
  background: ${colours.ground}; color: ${colours.text}; font: 13px/1.35 system-ui, sans-serif; z-index: 1000;
  border-left: 1px solid ${colours.line}; display: flex; flex-direction: column; gap: 8px }
.overlay.inline { position: static; width: 100%; height: 100%; border: 0 }
.overlay.inline canvas { max-width: 100% }
h2 { font-size: 11px; font-weight: 600; letter-spacing: .08em; color: ${colours.dim}; margin: 4px 0 2px; text-transform: uppercase }
.row { display: flex; align-items: center; gap: 5px; flex-wrap: wrap }
button, select { font: inherit; color: ${colours.text}; background: ${colours.panel}; border: 1px solid ${colours.line};
  border-radius: 5px; padding: 2px 7px; cursor: pointer }
button:hover { border-color: ${colours.dim} }
button[aria-pressed=true] { background: ${colours.lamp}; color: ${colours.ground}; border-color: ${colours.lamp} }
:focus-visible { outline: 2px solid ${colours.lamp}; outline-offset: 1px }
canvas { display: block; border-radius: 5px; background: ${colours.panel} }
.stage { display: flex; gap: 10px }
.stage .facts { font-size: 13px; min-width: 0 }
.stage .facts b { font-size: 17px; display: block }
.stage .facts small { color: ${colours.dim}; display: block }
.stage .because { color: ${colours.text}; margin-top: 4px }
input[type=range] { accent-color: ${colours.lamp}; min-width: 0 }
input.time { width: calc(100% - 50px); margin: 2px 0 0 50px }
.signals { display: grid; grid-template-columns: 74px 1fr minmax(46px, max-content) 44px; gap: 3px 7px; align-items: center }
.pair { display: grid; grid-template-columns: 1fr 58px; gap: 5px; min-width: 0 }
input[type=number] { font: inherit; font-size: 12px; min-width: 0; padding: 0 3px; color: ${colours.text}; background: ${colours.panel};
  border: 1px solid ${colours.line}; border-radius: 4px }
.folded > :not(.stage, .row) { display: none !important }
@media (max-width: 640px) {
  .overlay:not(.inline) { inset: auto 0 0; width: auto; max-height: 46vh; border-left: 0; border-top: 1px solid ${colours.line} }
  button { min-height: 32px }
}
.signals output { text-align: right; font-variant-numeric: tabular-nums }
.signals output.outside { color: #ff9d7a; text-decoration: underline wavy }
.signals .name { overflow: hidden; text-overflow: ellipsis }
.signals button { padding: 0 6px; font-size: 12px }
.presses { display: flex; flex-wrap: wrap; gap: 4px; margin-top: 5px }
.free { visibility: hidden }
.free.held { visibility: visible }
.ladder { list-style: none; margin: 0; padding: 0; display: flex; flex-direction: column; gap: 2px }
.ladder button { width: 100%; text-align: left; display: grid; grid-template-columns: 26px 96px 1fr; gap: 6px; padding: 2px 6px;
  border-color: transparent; align-items: baseline; background: none }
.ladder button.shows { background: ${colours.panel}; border-color: ${colours.lamp} }
.ladder button.wants .name { color: ${colours.lamp} }
.ladder .group { display: grid; grid-template-columns: 26px 1fr; gap: 6px; padding: 5px 6px 1px; color: ${colours.lamp} }
.ladder .rank { color: ${colours.dim}; text-align: right; font-variant-numeric: tabular-nums }
.ladder .name { font-weight: 600; overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.taken { margin: 2px 0 0 38px; color: ${colours.lamp}; font-weight: 600 }
.terms { display: flex; flex-wrap: wrap; gap: 2px 4px }
.terms code { font: 11.5px/1.3 ui-monospace, monospace; padding: 0 4px; border-radius: 4px; color: ${colours.dim}; background: ${colours.panel} }
.terms code.on { color: ${colours.ground}; background: ${colours.good} }
.why { background: ${colours.panel}; border-left: 3px solid ${colours.lamp}; border-radius: 4px; padding: 5px 8px; white-space: pre-wrap }
textarea { width: 100%; box-sizing: border-box; height: 90px; font: 11.5px/1.4 ui-monospace, monospace; background: ${colours.panel};
  color: ${colours.text}; border: 1px solid ${colours.line}; border-radius: 5px }
`;
