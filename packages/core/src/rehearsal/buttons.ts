/** The quantities of a body that can feed signals. Lengths in pixels, speeds in pixels a second, x to the right, y downwards. */
export const quantityNames = [
  'x',
  'y',
  'vx',
  'vy',
  'speed',
  'grounded',
  'blocked',
  'wet',
  'along',
  'across',
  'velocity',
  'push',
] as const;

export type QuantityName = (typeof quantityNames)[number];

/** The buttons of a body. */
export const buttonNames = ['left', 'right', 'up', 'down', 'jump'] as const;

export type ButtonName = (typeof buttonNames)[number];

/** Whether a name is the name of a button. */
export const isButton = (name: string): name is ButtonName =>
  (buttonNames as readonly string[]).includes(name);
