const sentences = {
  sheet: 'An image that holds many drawings of one character, and how it is cut.',
  cell: 'One drawing, cut out of a sheet.',
  pivot: 'The point of a drawing that stands where the character stands: between the feet, on the ground.',
  box: 'A rectangle with a name on a drawing, such as the body, or what a blow strikes.',
  point: 'A place with a name on a drawing, such as the hand that holds something.',
  frame: 'One cell, shown for a while, in a clip.',
  clip: 'Frames in their order, with their times: a walk, a blow, a blink.',
  loop: 'What a clip does at its end: start again, stop there, or go back and forth.',
  cue: 'A name on a frame, told to the game each time the frame begins: a footstep to be heard.',
  span: 'A name on several frames in a row, such as the part of a swing that strikes.',
  stride: 'How far the body travels in one pass of a clip, in pixels; with it, no foot slides.',
  compass: 'The directions that the character can face, and what turns it.',
  'dead zone': 'How small the vector must be for the character to keep its direction.',
  flipbook: 'The clips that show one thing in every direction, drawn for it or mirrored.',
  signal: 'A value that the game tells the character: a speed, a button, whether it stands on the ground.',
  press: 'A signal that happens and is over, such as a button; it can be remembered for a moment.',
  'derived signal': 'A value that is worked out from other signals, such as moving from the speed.',
  band: 'A yes or no with two thresholds: on above one, off below the other, so that it does not tremble.',
  state: 'What the character can be showing, and when it may show.',
  rank: 'Who wins when several states want to show: the one with the highest rank.',
  rest: 'The state that shows when no other wants to.',
  'as long as': 'A state with this condition, a posture, shows while it is true: walking, falling.',
  'starts when':
    'A state with this condition, an act, starts when it becomes true, and plays to its end: a leap, a blow.',
  'bare state': 'A state without a condition; a hop or another state leads to it, or it is the rest.',
  hop: 'A way of its own from one state to another, at a certain instant: from the first blow to the second.',
  'gives way': 'To whom a state makes room although it has not ended and ranks higher.',
  bridge:
    'A clip that is played once when a state is entered from another one: a skid between running and standing.',
  phase: 'How far a clip is in its pass: 0 at the beginning, 0.5 half-way.',
  carry: 'What a switch keeps of the place in the clip: nothing, the phase, or the frame.',
  gait: 'One of several flipbooks of one state, picked by a number: walking slowly, running fast.',
  variety: 'Several flipbooks of one state, one of which is picked each time: a yawn, a scratch.',
  variant:
    'A flipbook that shows in place of another while a flag or a choice says so: with a pole, or tired.',
  group: 'States that share a condition and rank together: all that is done in water.',
  track: 'A set of states that runs beside the others: arms that swing while the legs run.',
  tag: 'A name that conditions can ask for while a state that has it shows.',
  wardrobe: 'What a character can wear, in layers that follow its body drawing by drawing.',
  layer: 'One place of the clothes, such as the hat; it shows one of its pieces, or nothing.',
  piece: 'One of the things that a layer can be, such as a straw hat.',
  palette: 'Lists of colours that can take the place of one another: a coat in rust, moss or slate.',
  outfit: 'What one character wears: a piece for each layer, and its colours.',
  rehearsal:
    'A script of what happens to the character, and what is expected to show; it is run again at every edit.',
  finding: 'A fault that the check has found in a document, with its place and what to do.',
  controller: 'A document that was made ready to be played; any number of characters share it.',
  performer: 'One running character: the game sets its signals, lets time pass and draws its pose.',
  troupe: 'Many characters of one controller that are stepped together, such as a crowd.',
  pose: 'What is to be drawn now: a cell, mirrored or not, with its boxes, points and clothes.',
  report: 'What has happened in a step, with its instant: a cue, a switch or a turn.',
  snapshot: 'Where a character stands, as plain data, so that the game can be saved and go on.',
} as const satisfies Readonly<Record<string, string>>;

/** A word that the glossary explains. */
export type Term = keyof typeof sentences;

/** The glossary: each term in one sentence. The documentation and the workbench share it. */
export const glossary: Readonly<Record<Term, string>> = sentences;
