/** Colours of clips, in turn: told apart on the harbour's dusk, also by those who do not tell red from green. */
const clipColours = ['#ffc95c', '#6fb7d6', '#e08f6b', '#b79be8', '#86c99a', '#e58fb5', '#c9b458', '#7fa3f0'];

/** The colour of a clip by its place in the document. */
export const clipColour = (place: number): string => clipColours[place % clipColours.length]!;

export const lamp = '#ffc95c';
export const foot = '#ff7f8a';
export const box = '#7fd0b0';
