// npm run draw:terms: the small pictures beside the words of the glossary, for the documentation and for the help in the workbench.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './run.js';

const colours = {
  ground: '#1c1628',
  line: '#463c60',
  dim: '#b9aecb',
  text: '#f3e9d8',
  lamp: '#ffc95c',
  green: '#6fbf73',
  red: '#ff8f7a',
  coat: '#2b6170',
  hat: '#5c4a86',
  skin: '#e0a074',
};
const { line, dim, text, lamp, green, red } = colours;

const rect = (x: number, y: number, width: number, height: number, fill: string, more = ''): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${fill}" ${more}/>`;
const frame = (x: number, y: number, size: number, stroke = line): string =>
  `<rect x="${x}" y="${y}" width="${size}" height="${size}" rx="3" fill="#241d38" stroke="${stroke}"/>`;
const stroke = (d: string, colour = dim, more = ''): string =>
  `<path d="${d}" fill="none" stroke="${colour}" stroke-width="1.5" ${more}/>`;
const word = (x: number, y: number, content: string, colour = text, size = 9, anchor = 'middle'): string =>
  `<text x="${x}" y="${y}" fill="${colour}" font-family="sans-serif" font-size="${size}" text-anchor="${anchor}">${content}</text>`;
const arrow = (x: number, y: number, to: number, colour = lamp): string =>
  stroke(`M${x} ${y}H${to}`, colour) + stroke(`M${to - 4} ${y - 3}L${to} ${y}L${to - 4} ${y + 3}`, colour);
/** A lamplighter, 14 wide and 22 high, standing at a place. @param step how far one foot is before the other */
const figure = (x: number, y: number, step = 0, look = 1): string =>
  rect(x - 4, y - 22, 8, 5, colours.hat) +
  rect(x - 3 + (look > 0 ? 1 : -1), y - 17, 6, 4, colours.skin) +
  rect(x - 4, y - 13, 8, 8, colours.coat) +
  rect(x - 3 - step, y - 5, 3, 5, colours.hat) +
  rect(x + step, y - 5, 3, 5, colours.hat);
const rung = (y: number, content: string, colour = line, x = 20, width = 56): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="11" rx="3" fill="#241d38" stroke="${colour}"/>` +
  word(x + width / 2, y + 8.5, content, text, 8);
const pill = (x: number, y: number, width: number, content: string, colour = lamp): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="10" rx="5" fill="none" stroke="${colour}"/>` +
  word(x + width / 2, y + 7.5, content, colour, 7.5);
const strip = (colour = line): string =>
  [0, 1, 2, 3]
    .map((i) => {
      const edge = i === 1 ? colour : line;
      return `<rect x="${8 + i * 20}" y="14" width="19" height="26" rx="3" fill="#241d38" stroke="${edge}"/>`;
    })
    .join('');
const walk = [0, 2, 0, 3].map((step, i) => figure(17.5 + i * 20, 38, step)).join('');

const pictures = {
  sheet:
    frame(24, 2, 48) +
    [0, 1, 2].map((i) => stroke(`M${24 + i * 16} 2V50M24 ${2 + i * 16}H72`, line)).join('') +
    [0, 1, 2].map((i) => figure(32 + i * 16, 32, i)).join(''),
  cell: frame(33, 8, 32, lamp) + figure(49, 37, 2),
  pivot: figure(48, 40) + stroke('M30 40H66', lamp) + stroke('M48 34V46', lamp),
  box: figure(48, 40, 2) + `<rect x="41" y="17" width="14" height="24" fill="none" stroke="${green}"/>`,
  point: figure(48, 40) + stroke('M56 28h-6M53 25v6', red),
  frame: strip(lamp) + walk + word(38, 48, '90 ms', dim, 8),
  clip: strip() + walk + arrow(8, 45, 88),
  loop: strip() + walk + stroke('M88 44q0 6-8 6H16q-8 0-8-6', lamp) + stroke('M5 47l3-4l3 4', lamp),
  cue: strip() + walk + stroke('M29 14V4', lamp) + pill(29, 2, 26, 'step'),
  span: strip() + walk + rect(28, 9, 39, 3, lamp) + word(48, 7, 'strike', lamp, 8),
  stride:
    figure(20, 34, 2) +
    figure(74, 34, 2) +
    stroke('M4 35H92', line) +
    arrow(20, 42, 74) +
    word(47, 52, '24 px', dim, 8),
  compass:
    `<circle cx="48" cy="27" r="20" fill="none" stroke="${line}"/>` +
    [0, 1, 2, 3]
      .map((i) =>
        stroke(
          `M48 27L${48 + 20 * Math.cos((i * Math.PI) / 4 + Math.PI / 8)} ${27 + 20 * Math.sin((i * Math.PI) / 4 + Math.PI / 8)}M48 27L${48 - 20 * Math.cos((i * Math.PI) / 4 + Math.PI / 8)} ${27 - 20 * Math.sin((i * Math.PI) / 4 + Math.PI / 8)}`,
          line,
        ),
      )
      .join('') +
    stroke('M48 27L62 20', lamp, 'stroke-linecap="round"') +
    `<circle cx="62" cy="20" r="2.5" fill="${lamp}"/>`,
  'dead-zone':
    `<circle cx="48" cy="27" r="20" fill="none" stroke="${line}"/><circle cx="48" cy="27" r="8" fill="${line}" stroke="${red}"/>` +
    stroke('M48 27L52 24', lamp),
  flipbook:
    frame(6, 14, 26) +
    figure(19, 38, 2, -1) +
    frame(35, 14, 26) +
    figure(48, 38) +
    frame(64, 14, 26) +
    figure(77, 38, 2) +
    word(19, 50, 'west', dim, 7) +
    word(48, 50, 'south', dim, 7) +
    word(77, 50, 'east', dim, 7),
  signal:
    pill(6, 10, 36, 'speed', dim) + pill(6, 24, 36, 'jump', dim) + arrow(46, 22, 66) + figure(78, 36, 2),
  press: stroke('M8 40H40V16H50V40H88', lamp) + word(48, 51, 'jump', dim, 8),
  'derived-signal': pill(4, 20, 34, 'vx', dim) + arrow(40, 25, 54) + pill(56, 20, 36, 'moving'),
  band:
    stroke('M8 40H88', line) +
    rect(8, 36, 26, 8, '#3a3054') +
    rect(34, 36, 20, 8, '#6b5730') +
    rect(54, 36, 34, 8, '#38603c') +
    stroke('M8 34C24 34 30 14 48 18S66 30 88 12', lamp) +
    word(21, 52, 'off', dim, 7) +
    word(71, 52, 'on', dim, 7),
  state:
    frame(10, 14, 28, lamp) +
    figure(24, 39) +
    frame(58, 14, 28) +
    figure(72, 39, 3) +
    word(24, 51, 'stand', text, 7) +
    word(72, 51, 'walk', dim, 7),
  rank:
    rung(3, 'leap') +
    rung(16, 'fall', lamp) +
    rung(29, 'walk') +
    rung(42, 'stand') +
    word(11, 24.5, '20', dim, 8),
  rest: rung(3, 'leap') + rung(16, 'fall') + rung(29, 'walk') + rung(42, 'stand', lamp),
  'as-long-as':
    stroke('M8 18H28V8H68V18H88', dim) +
    frame(30, 24, 26, lamp) +
    figure(43, 48, 3) +
    word(48, 6, 'moving', dim, 7),
  'starts-when':
    stroke('M8 18H30V8H38V18H88', dim) +
    [0, 1, 2].map((i) => frame(30 + i * 19, 26, 18, lamp) + figure(39 + i * 19, 43, i)).join('') +
    word(34, 6, 'jump', dim, 7),
  hop:
    frame(6, 14, 28) +
    figure(20, 39, 2) +
    frame(62, 14, 28, lamp) +
    figure(76, 39, 3) +
    arrow(36, 28, 60) +
    word(48, 12, 'swing', dim, 7),
  'gives-way':
    rung(8, 'land', line) +
    rung(34, 'walk', lamp) +
    stroke('M80 14q8 12 0 24', lamp) +
    stroke('M80 33v6h5', lamp),
  bridge:
    frame(4, 16, 24) +
    figure(16, 38, 3) +
    frame(36, 16, 24, lamp) +
    figure(48, 38, 1, -1) +
    frame(68, 16, 24) +
    figure(80, 38) +
    word(48, 50, 'skid', lamp, 7) +
    word(16, 50, 'run', dim, 7) +
    word(80, 50, 'stand', dim, 7),
  'bare-state':
    frame(6, 14, 28) +
    figure(20, 39, 2) +
    frame(62, 14, 28, lamp) +
    figure(76, 39) +
    arrow(36, 28, 60, dim) +
    word(20, 51, 'leap', dim, 7) +
    word(76, 51, 'then: air', lamp, 7),
  phase:
    strip() +
    walk +
    rect(8, 44, 79, 3, line) +
    rect(8, 44, 40, 3, lamp) +
    stroke('M48 10V50', lamp) +
    word(48, 8, '0.5', lamp, 8),
  carry:
    rect(8, 10, 60, 8, line) +
    rect(8, 10, 30, 8, '#6b5730') +
    rect(26, 36, 40, 8, line) +
    rect(26, 36, 20, 8, '#6b5730') +
    stroke('M38 20L46 34', lamp) +
    stroke('M41 31l5 4l1-6', lamp) +
    word(80, 17, 'walk', dim, 7) +
    word(80, 43, 'run', dim, 7),
  gait:
    figure(22, 34, 1) +
    figure(72, 34, 4) +
    stroke('M6 42H90', line) +
    stroke('M48 38V46', lamp) +
    word(24, 52, 'walk', dim, 7) +
    word(72, 52, 'run', dim, 7),
  variety:
    [0, 1, 2]
      .map((i) => frame(8 + i * 28, 12, 24, i === 1 ? lamp : line) + figure(20 + i * 28, 34, i, i - 1))
      .join('') + word(48, 48, 'one of them', dim, 8),
  variant:
    frame(10, 12, 26) +
    figure(23, 36, 2) +
    frame(60, 12, 26, lamp) +
    figure(73, 36, 2) +
    stroke('M66 12V36', lamp) +
    arrow(40, 25, 57) +
    word(48, 48, 'with a pole', dim, 8),
  group:
    `<rect x="10" y="4" width="76" height="32" rx="4" fill="none" stroke="${lamp}"/>` +
    rung(8, 'stroke', line, 20, 60) +
    rung(21, 'float', line, 20, 60) +
    rung(40, 'walk', line, 10, 76),
  track:
    word(6, 16, 'arms', dim, 8, 'start') +
    rect(30, 9, 22, 9, line) +
    rect(53, 9, 34, 9, lamp) +
    word(6, 36, 'legs', dim, 8, 'start') +
    rect(30, 29, 40, 9, lamp) +
    rect(71, 29, 16, 9, line),
  tag: rung(8, 'fall') + rung(22, 'flip') + pill(28, 40, 40, 'in air') + stroke('M78 13h6v14h-6', lamp),
  wardrobe:
    figure(18, 40) +
    [0, 1, 2].map((i) => frame(38 + i * 18, 14, 17)).join('') +
    rect(42, 19, 8, 5, lamp) +
    rect(60, 18, 8, 9, red) +
    rect(80, 18, 4, 10, green) +
    stroke('M28 24H35', dim) +
    word(64, 44, 'hat, coat, lantern', dim, 7),
  layer:
    figure(30, 42) +
    rect(26, 20, 8, 5, lamp) +
    rung(8, 'hat', lamp, 50, 38) +
    rung(22, 'coat', line, 50, 38) +
    rung(36, 'body', line, 50, 38),
  piece:
    [0, 1, 2].map((i) => frame(8 + i * 28, 12, 24, i === 1 ? lamp : line)).join('') +
    rect(14, 22, 12, 6, colours.hat) +
    rect(42, 23, 12, 5, lamp) +
    rect(38, 28, 20, 2, lamp) +
    rect(72, 20, 8, 9, red) +
    word(48, 48, 'straw', lamp, 8),
  palette:
    [
      [red, '#a8452f'],
      [green, '#38603c'],
      ['#8fa3c9', '#4a5a80'],
    ]
      .map(
        ([light, dark], i) =>
          frame(8 + i * 28, 8, 24, i === 0 ? lamp : line) +
          rect(13 + i * 28, 14, 7, 12, light!) +
          rect(20 + i * 28, 14, 7, 12, dark!),
      )
      .join('') +
    word(20, 44, 'rust', lamp, 7) +
    word(48, 44, 'moss', dim, 7) +
    word(76, 44, 'slate', dim, 7),
  outfit:
    figure(24, 42) +
    rect(20, 20, 8, 5, lamp) +
    rect(20, 29, 8, 8, red) +
    word(42, 18, 'hat: straw', text, 8, 'start') +
    word(42, 31, 'coat: long', text, 8, 'start') +
    word(42, 44, 'cloth: rust', text, 8, 'start'),
  rehearsal:
    stroke('M8 40H88', line) +
    [16, 36, 62].map((x) => stroke(`M${x} 40V30`, dim)).join('') +
    stroke('M70 20l5 6l9-12', green) +
    word(16, 26, 'run', dim, 7) +
    word(36, 26, 'jump', dim, 7),
  finding:
    rung(6, 'leap') +
    rung(21, 'fall', red) +
    rung(36, 'walk') +
    `<circle cx="84" cy="26" r="6" fill="none" stroke="${red}"/>` +
    stroke('M84 22.5V27M84 29V30', red),
  controller:
    `<path d="M10 8h18l6 6v30h-24z" fill="#241d38" stroke="${line}"/>` +
    [18, 24, 30, 36].map((y) => stroke(`M14 ${y}H${y % 12 === 0 ? 26 : 30}`, line)).join('') +
    arrow(38, 27, 52) +
    [0, 1, 2].map((i) => rung(10 + i * 13, '', i === 0 ? lamp : line, 56, 32)).join(''),
  performer:
    pill(4, 10, 34, 'speed', dim) +
    pill(4, 30, 34, 'jump', dim) +
    arrow(40, 26, 54) +
    frame(58, 10, 32, lamp) +
    figure(74, 39, 3),
  troupe:
    [0, 1, 2, 3, 4].map((i) => figure(14 + i * 17, 26, i % 3, i % 2 === 0 ? 1 : -1)).join('') +
    [0, 1, 2, 3, 4].map((i) => figure(14 + i * 17, 50, (i + 1) % 3, i % 2 === 0 ? -1 : 1)).join(''),
  pose:
    frame(32, 8, 36, lamp) +
    figure(48, 40, 2) +
    `<rect x="41" y="17" width="14" height="24" fill="none" stroke="${green}"/>` +
    stroke('M60 27h-6M57 24v6', red),
  report:
    stroke('M8 36H88', line) +
    [24, 48, 70].map((x) => stroke(`M${x} 40V30`, lamp)).join('') +
    word(24, 26, 'step', lamp, 7) +
    word(48, 18, 'land', lamp, 7) +
    word(70, 26, 'step', lamp, 7) +
    word(48, 49, '123 ms', dim, 7),
  snapshot:
    frame(8, 12, 28) +
    figure(22, 37, 3) +
    arrow(38, 26, 52) +
    `<path d="M56 10h22l6 6v28h-28z" fill="#241d38" stroke="${lamp}"/>` +
    word(70, 24, 'run', text, 7) +
    word(70, 33, '0.4', text, 7) +
    word(70, 42, 'east', text, 7),
};

const folder = path.join(root, 'docs/pictures/terms');
mkdirSync(folder, { recursive: true });
for (const [name, content] of Object.entries(pictures))
  writeFileSync(
    path.join(folder, `${name}.svg`),
    `<svg xmlns="http://www.w3.org/2000/svg" width="96" height="54" viewBox="0 0 96 54"><rect width="96" height="54" rx="6" fill="${colours.ground}"/>${content}</svg>\n`,
  );
console.log(`${Object.keys(pictures).length} pictures in docs/pictures/terms`);
