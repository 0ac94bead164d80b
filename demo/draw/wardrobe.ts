// Draws demo/townsfolk/wardrobe/*.png: one body of the quay, and hair, coats, hats and props to put on it, cell for cell; and
// prints where the hand is in each cell, for the document.
import { Brush, ellipse, limb } from './brush.js';
import type { Pen, Place, Ramp } from './brush.js';
import { DrawnSheet } from './drawn-sheet.js';
import { directionNames as rows } from './from-above.js';
import type { Direction, Placing } from './from-above.js';
import { columnsWithWaving as columns, drawPerson, palmOf } from './person.js';
import type { PartGroup } from './person.js';
import type { Person } from './person-definition.js';

const cell = { width: 40, height: 48 };
const pivot = { x: 20, y: 42 };
const line = '#1c1830';

// The colours that palettes exchange, as drawn.
const skin = ['#b4685a', '#e8a982', '#fbd6ac'];
const cheek = '#e58a72';
const hair = ['#3c2430', '#5a3230', '#7d4a38'];
const [dark, middle, bright] = ['#1b2444', '#2b3d68', '#456294'] as const;
const cloth = [dark, middle, bright];
const trim = ['#7a3f24', '#b8692f', '#e0994a'];
// Those that stay.
const brass = ['#b87a35', '#f0b850', '#ffe9a8'];
const linen = ['#b9a6b4', '#e9dfd6', '#fbf4e6'];
const straw = ['#a8773c', '#dcb264', '#f8e2a0'];
const wicker = ['#6e4a2c', '#a87842', '#d8ac68'];

const plain: Person = {
  line,
  eye: '#241a33',
  skin,
  cheek,
  hair,
  shoe: ['#2c1a24', '#4b2c30', '#7a4c3c'],
  gait: { step: 3.6, swing: 2.7, bounce: 1 },
  legs: { spread: 2.1, cloth },
  dress: { cloth: linen, top: 4, wide: 4.4, hem: 8 },
  sleeve: cloth,
};
const isFront = (direction: Direction): boolean => direction !== 'north' && direction !== 'northeast';
const pin = (brush: Pen, { x, y }: Place, colour: string | undefined): void => brush.dot(x, y, colour);

const buttons: Partial<Record<Direction, readonly number[]>> = {
  south: [-1.5, 1.5],
  southeast: [-1.3, 1.3],
  east: [0],
};
const coats: Readonly<Record<string, Partial<Person>>> = {
  pilot: {
    dress: { cloth, top: 4.2, wide: 5.3, hem: 6, bands: [[11.4, 4.2, trim]] },
    front({ brush, place, direction }) {
      for (const side of buttons[direction] ?? [])
        for (const up of [15.2, 13, 9.6]) pin(brush, place(4.1, -side, up), brass[1]);
      const collar = place(isFront(direction) ? 1.4 : -1.4, 0, 17.4);
      brush.fill(limb({ x: collar.x - 2.2, y: collar.y }, 1, { x: collar.x + 2.2, y: collar.y }, 1), trim);
    },
  },
  apron: {
    dress: { cloth, top: 3.6, wide: 6.4, hem: 3.1 },
    sleeve: trim,
    front({ brush, place, direction }) {
      if (!isFront(direction)) {
        const bow = place(-3.6, 0, 12.4);
        brush.fill(limb({ x: bow.x - 1.6, y: bow.y }, 0.9, { x: bow.x + 1.6, y: bow.y }, 0.9), linen);
        pin(brush, { x: bow.x - 1, y: bow.y + 1.8 }, linen[1]);
        pin(brush, { x: bow.x + 1, y: bow.y + 2.2 }, linen[1]);
        return;
      }
      const [top, low] = [place(3.3, 0, 13), place(5.2, 0, 5)];
      const aside = direction === 'east';
      brush.fill(limb(top, aside ? 1.1 : 2.5, low, aside ? 1.5 : 3.4), linen, undefined, 0.2);
      const belt = place(2.6, 0, 13.2);
      const [left, right] = [
        { x: belt.x - (aside ? 3 : 3.4), y: belt.y - 0.6 },
        { x: belt.x + (aside ? 1 : 3.2), y: belt.y - 0.6 },
      ];
      brush.fill(limb(left, 0.6, right, 0.6), linen);
    },
  },
  shawl: {
    dress: { cloth, top: 3.6, wide: 6.1, hem: 2.7, bands: [[4.6, 5.7, trim]] },
    sleeve: cloth,
    front({ brush, place, direction }) {
      const front = isFront(direction);
      const [top, tip] = front
        ? [place(1.6, 0, 16.4), place(3.6, 0, 11.6)]
        : [place(-1.2, 0, 16.4), place(-4, 0, 9)];
      brush.fill(limb(top, 4.1, tip, front ? 1.5 : 2), trim, line);
      if (front) pin(brush, place(3.9, 0, 14), brass[2]);
      else
        for (const dx of [-2, 0, 2])
          pin(brush, { x: tip.x + dx, y: tip.y + 2.4 - Math.abs(dx) * 0.4 }, trim[2]);
    },
  },
  jacket: {
    dress: { cloth, top: 4.1, wide: 4.9, hem: 8.6 },
    front({ brush, place, direction }) {
      if (isFront(direction)) {
        const [top, low] = [place(3.4, 0, 16), place(4.3, 0, 10)];
        brush.fill(
          limb(top, direction === 'east' ? 0.9 : 1.7, low, direction === 'east' ? 0.6 : 1.1),
          trim,
          line,
        );
      } else {
        const [left, right] = [place(-4.2, 2, 11.2), place(-4.2, -2, 11.2)];
        brush.fill(limb(left, 0.6, right, 0.6), trim);
      }
    },
  },
  oilskin: {
    dress: { cloth, top: 4.4, wide: 6.6, hem: 4.4 },
    front({ brush, place, direction }) {
      // A short cape over the shoulders, and its hem.
      const [left, right] = [place(0.6, 3.6, 14.6), place(0.6, -3.6, 14.6)];
      brush.fill(limb(left, 2.3, right, 2.3), cloth, line, 0.15);
      const middle = place(0.6, 0, 15.4);
      if (isFront(direction)) {
        brush.fill(ellipse({ x: middle.x, y: middle.y + 1.6 }, 1.5, 1), trim, line);
        for (const up of [11.6, 8.6]) pin(brush, place(5, 0, up), brass[1]);
      }
    },
  },
};

const lockPairs = (
  brush: Pen,
  { x, y }: Place,
  across: number,
  down: number,
  rx: number,
  ry: number,
): void => {
  for (const side of [-1, 1]) brush.fill(ellipse({ x: x + side * across, y: y + down }, rx, ry), hair, line);
};
const hairs: Readonly<Record<string, Partial<Person>>> = {
  cropped: {},
  bob: {
    locks({ brush, head, direction }) {
      const { x, y } = head;
      if (direction === 'south') lockPairs(brush, head, 4.5, 1.8, 1.5, 3.4);
      else if (direction === 'southeast') {
        brush.fill(ellipse({ x: x - 3.4, y: y + 1.8 }, 2.3, 3.7), hair, line);
        brush.fill(ellipse({ x: x + 4.7, y: y + 1.4 }, 0.9, 2.6), hair, line);
      } else if (direction === 'east') brush.fill(ellipse({ x: x - 2.2, y: y + 1.8 }, 3.1, 3.9), hair, line);
      else if (direction === 'northeast') brush.fill(ellipse({ x: x - 1, y: y + 1.7 }, 4.4, 3.9), hair, line);
      else brush.fill(ellipse({ x, y: y + 1.7 }, 5.2, 4), hair, line);
    },
  },
  bun: {
    behindHead({ brush, at, direction }) {
      const bun = at(-4.2, 0, 4.4);
      if (isFront(direction)) brush.fill(ellipse(bun, 2.6, 2.4), hair, line);
    },
    locks({ brush, at, direction }) {
      if (isFront(direction)) return;
      const bun = at(-3.8, 0, 2.6);
      brush.fill(ellipse(bun, 2.7, 2.4), hair, line, 0.15);
      pin(brush, { x: bun.x, y: bun.y + 2.4 }, trim[1]);
    },
  },
  plait: {
    behindHead({ brush, at, direction, pose }) {
      if (direction !== 'east' && direction !== 'southeast') return;
      const [root, end] = [at(-4.4, 0, -1.6), at(-5, 0.8 + pose.sway, -9)];
      brush.fill(limb(root, 1.7, end, 1.1), hair, line);
    },
    locks({ brush, at, direction, pose }) {
      if (isFront(direction)) return;
      const [root, end] = [at(-4.4, 0, -1.6), at(-4.8, 0.8 + pose.sway, -10)];
      brush.fill(limb(root, 1.8, end, 1.2), hair, line);
      pin(brush, { x: end.x, y: end.y - 1 }, trim[1]);
    },
  },
  curls: {
    locks({ brush, head, direction }) {
      const { x, y } = head;
      const spots: Readonly<Record<Direction, readonly (readonly [number, number])[]>> = {
        south: [
          [-4.8, 1.6],
          [4.8, 1.6],
          [-5, -1.6],
          [5, -1.6],
          [-2.6, -4.4],
          [2.6, -4.4],
          [0, -5],
        ],
        southeast: [
          [-4.8, 1.8],
          [-5, -1.6],
          [4.4, -2.4],
          [-2.6, -4.4],
          [1.8, -4.8],
          [-3.4, 3.8],
        ],
        east: [
          [-4.8, 1.6],
          [-5, -1.8],
          [-2.8, -4.6],
          [1.4, -4.8],
          [-3.6, 4],
          [-1, 3.6],
        ],
        northeast: [
          [-4.8, 1.6],
          [-5, -1.8],
          [-2.8, -4.6],
          [1.4, -4.8],
          [-3, 4],
          [0.6, 4.2],
          [4.4, -1.6],
        ],
        north: [
          [-4.8, 1.6],
          [4.8, 1.6],
          [-5, -1.6],
          [5, -1.6],
          [-2.6, -4.4],
          [2.6, -4.4],
          [-2.4, 4.2],
          [2.4, 4.2],
        ],
      };
      for (const [dx, dy] of spots[direction])
        brush.fill(ellipse({ x: x + dx, y: y + dy }, 1.9, 1.8), hair, undefined, 0.1);
    },
  },
};

const peak = (brush: Pen, at: Placing, direction: Direction, ramp: Ramp, rim: string, up: number): void => {
  if (!isFront(direction)) return;
  const { x, y } = at(4.2, 0, direction === 'east' ? up - 2 : up);
  const rx = direction === 'east' ? 2.4 : direction === 'southeast' ? 3.4 : 3.9;
  const ry = direction === 'east' ? 0.7 : 0.9;
  brush.fill(ellipse({ x, y }, rx, ry), ramp, rim);
};
const hats: Readonly<Record<string, NonNullable<Person['wears']>>> = {
  peaked: {
    over({ brush, head, at, direction, line: rim }) {
      peak(brush, at, direction, [dark, dark, middle], rim, 4.7);
      brush.fill(ellipse({ x: head.x, y: head.y - 4.2 }, 5.4, 2.3), cloth, rim);
      brush.fill(ellipse({ x: head.x - 0.2, y: head.y - 5.8 }, 5.9, 2.6), linen, rim, 0.1);
      if (isFront(direction)) pin(brush, at(4, 0, 7.2), brass[1]);
    },
  },
  flat: {
    over({ brush, head, at, direction, line: rim }) {
      peak(brush, at, direction, [dark, middle, middle], rim, 5);
      brush.fill(ellipse({ x: head.x - 0.3, y: head.y - 4.6 }, 5.8, 2.8), cloth, rim, 0.1);
      pin(brush, { x: head.x - 0.3, y: head.y - 7 }, cloth[2]);
    },
  },
  straw: {
    over({ brush, at, line: rim }) {
      const brim = at(0.2, 0, 4.6);
      brush.fill(ellipse({ x: brim.x, y: brim.y }, 7.7, 2.7), straw, rim, 0.1);
      brush.fill(ellipse({ x: brim.x, y: brim.y - 1 }, 4.7, 1.8), cloth);
      brush.fill(ellipse({ x: brim.x, y: brim.y - 2.2 }, 4.3, 2.5), straw, undefined, 0.25);
    },
  },
  knitted: {
    over({ brush, head, direction, line: rim }) {
      const x = head.x - (direction === 'east' ? 0.6 : 0);
      brush.fill(ellipse({ x, y: head.y - 3.9 }, 5.3, 3.4), cloth, rim, 0.1);
      brush.fill(
        limb({ x: x - 4.3, y: head.y - 2.3 }, 1.25, { x: x + 4.3, y: head.y - 2.3 }, 1.25),
        trim,
        rim,
      );
      brush.fill(ellipse({ x: x - 0.2, y: head.y - 7.4 }, 1.7, 1.6), trim, rim);
    },
  },
};

/** Draws a sheet: every cell, one group of a person's parts in each. */
async function sheet(
  file: string,
  person: Partial<Person>,
  group: PartGroup,
  free?: (direction: Direction, column: number) => (x: number, y: number) => boolean,
): Promise<void> {
  const drawn = new DrawnSheet(cell, columns, rows.length);
  rows.forEach((direction, row) => {
    for (let column = 0; column < columns; column++) {
      const brush = new Brush(cell.width, cell.height, pivot);
      drawPerson(brush, { ...plain, ...person }, direction, column, group);
      brush.cleanUp();
      brush.outline(() => line, free?.(direction, column));
      drawn.put(brush.colours, column, row);
    }
  });
  await write(file, drawn);
}

async function write(name: string, drawn: DrawnSheet): Promise<void> {
  await drawn.write(`../townsfolk/wardrobe/${name}.png`);
  console.log(`demo/townsfolk/wardrobe/${name}.png`);
}

/** Hair has no line where the face is: it would be drawn upon the cheeks. */
const besideFace = (direction: Direction, column: number): ((x: number, y: number) => boolean) => {
  const bare = new Brush(cell.width, cell.height, pivot);
  drawPerson(bare, plain, direction, column, 'head');
  return (x, y) => bare.at(x, y) === undefined;
};

await sheet('body', {}, 'legs');
await sheet('face-smooth', {}, 'head');
await sheet('face-bearded', { beard: hair }, 'head');
for (const [name, coat] of Object.entries(coats)) await sheet(`coat-${name}`, coat, 'coat');
for (const [name, one] of Object.entries(hairs)) await sheet(`hair-${name}`, one, 'hair', besideFace);
for (const [name, wears] of Object.entries(hats)) await sheet(`hat-${name}`, { wears }, 'hat');

/** Things to hold; the pivot is where the hand is. */
const props: readonly ((brush: Brush) => void)[] = [
  (brush) => {
    // A lantern.
    brush.fill(limb({ x: 0, y: 0.4 }, 0.7, { x: 0, y: 2.4 }, 0.7), brass, line);
    brush.fill(ellipse({ x: 0, y: 3.2 }, 2.3, 1), brass, line);
    brush.fill(limb({ x: 0, y: 4.6 }, 2, { x: 0, y: 7 }, 2), ['#f08438', '#ffc95c', '#fff6cf'], line, 0.3);
    brush.fill(ellipse({ x: 0, y: 8.8 }, 2.3, 0.9), brass, line);
  },
  (brush) => {
    // A basket of fish.
    brush.fill(limb({ x: -2.6, y: 2.4 }, 0.6, { x: 0, y: 0.2 }, 0.6), wicker, line);
    brush.fill(limb({ x: 2.6, y: 2.4 }, 0.6, { x: 0, y: 0.2 }, 0.6), wicker, line);
    brush.fill(ellipse({ x: 0, y: 4.6 }, 3.9, 2.7), wicker, line);
    brush.fill(ellipse({ x: 0, y: 3.3 }, 3.5, 1.5), ['#4a2f24', '#6e4a2c', '#6e4a2c']);
    const fish = ['#5d7f96', '#9cc3cf', '#e2f3ee'];
    brush.fill(limb({ x: -2, y: 2.8 }, 0.9, { x: 0.6, y: 2.3 }, 1), fish);
    brush.fill(limb({ x: 0.4, y: 3.4 }, 0.9, { x: 2.6, y: 2.4 }, 0.6), fish);
  },
  (brush) => {
    // A broom, held in its middle.
    brush.fill(limb({ x: 0.8, y: -9 }, 0.7, { x: -0.2, y: 4 }, 0.7), wicker, line);
    brush.fill(limb({ x: -0.3, y: 4.6 }, 1.3, { x: -0.8, y: 8.4 }, 2.5), straw, line);
    brush.fill(limb({ x: -1.4, y: 4.8 }, 0.7, { x: 0.8, y: 5 }, 0.7), trim);
  },
  (brush) => {
    // A kettle for the boats' tea.
    brush.fill(ellipse({ x: 0, y: 1.6 }, 2.6, 2), ['#2a2440', '#4b4468', '#6e668c'], line);
    brush.erase(ellipse({ x: 0, y: 2.2 }, 1.7, 1.3));
    brush.fill(limb({ x: 2, y: 5 }, 0.8, { x: 4.2, y: 3.2 }, 0.7), ['#4b4468', '#8f84a6', '#ddd3da'], line);
    brush.fill(ellipse({ x: 0, y: 5.6 }, 3, 2.5), ['#4b4468', '#8f84a6', '#ddd3da'], line, 0.1);
  },
];
const small = { width: 20, height: 28 };
const held = new DrawnSheet(small, props.length, 1);
props.forEach((draw, i) => {
  const brush = new Brush(small.width, small.height, { x: 10, y: 13 });
  draw(brush);
  brush.cleanUp();
  brush.outline(() => line);
  held.put(brush.colours, i, 0);
});
await write('props', held);

console.log('\n    perCell:                       # where the hand is');
rows.forEach((direction, row) => {
  const points = Array.from({ length: columns }, (_, column) => {
    const { x, y } = palmOf(plain, direction, column);
    return `${row * columns + column}: { points: { hand: [${Math.round(pivot.x + x)}, ${Math.round(pivot.y + y)}] } }`;
  });
  for (let i = 0; i < columns; i += 3) console.log(`      ${points.slice(i, i + 3).join('\n      ')}`);
});
