/** The colours of every picture the command draws: the harbour at dusk. */
export const theme = {
  ground: '#241f38',
  panel: '#2f2a47',
  /** Behind drawings, light enough for their dark outlines to show. */
  stage: '#5f577c',
  checkDark: '#5a5276',
  checkLight: '#645c81',
  line: '#544d72',
  text: '#f0e6da',
  dim: '#a99fbd',
  lamp: '#ffc95c',
  good: '#7fc8a0',
  bad: '#f0716a',
} as const;

/** Colours that tell clips or states apart, far enough from each other in hue and light to be told side by side. */
const marks = [
  '#e8a33d',
  '#5fb3a8',
  '#c98bc9',
  '#7fa8e0',
  '#e07a5f',
  '#a8c66c',
  '#d9c7a0',
  '#8f8fd9',
  '#d9798f',
  '#6cc6d9',
];

/** The colour of the `index`-th thing to be told apart. */
export function markColour(index: number): string {
  return marks[index % marks.length]!;
}
