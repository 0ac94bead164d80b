import type { RoomName } from '../character/rooms.js';

/** A stop on the way through the rooms. */
export interface Step {
  readonly room: RoomName;
  /** What is pointed at, as a selector. */
  readonly at: string;
  readonly title: string;
  readonly says: string;
}

/** The way through the rooms, of about two minutes. */
export const steps: readonly Step[] = [
  {
    ...{ room: 'cut', at: 'aside', title: 'Alive while you work' },
    says: 'This is the stage. Press “whole character”, click the picture, and lead him with the arrow keys and space. It follows every edit at once.',
  },
  {
    ...{ room: 'cut', at: '[data-testid=sheet]', title: 'Cut' },
    says: 'The sheet holds all drawings. Each cell has a number; click one, and below you place its feet, boxes and points.',
  },
  {
    ...{ room: 'time', at: '.strip', title: 'Time' },
    says: 'A clip is a strip of frames, each as wide as it lasts. Drag a border between two frames and watch the stage. Pins are cues, told to the game.',
  },
  {
    ...{ room: 'turn', at: '.dialing', title: 'Turn' },
    says: 'Drag the pointer of the dial round. Below stands what shows in each direction: drawn for it, mirrored, or standing in.',
  },
  {
    ...{ room: 'signals', at: '.room .panel', title: 'Signals' },
    says: 'What the game tells the character: a speed, a button, the ground under his feet. Below is what follows from that, such as moving.',
  },
  {
    ...{ room: 'rank', at: '.ladder', title: 'Rank' },
    says: 'Of all states that want to show, the highest on the ladder wins. Drag one up or down; click one to say when it shows.',
  },
  {
    ...{ room: 'try', at: '.watching', title: 'Try' },
    says: 'Lead him by keys, slow time or stop it, go back frame by frame, and click a state to read why it showed, or why it did not.',
  },
  {
    ...{ room: 'check', at: '.views', title: 'Check' },
    says: 'What can never show, what flickers, what jumps by two pixels: each with a picture and its remedy.',
  },
  {
    ...{ room: 'ship', at: '.views', title: 'Ship' },
    says: 'The packed character, the code for your game, and a page for the programmer. Now bring your own: drop a sheet or a folder of drawings anywhere.',
  },
];
