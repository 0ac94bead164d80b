// Draws demo/townsfolk/*.png, and the starter's: the people of the quay, a row for each of five directions, standing and walking.
import { Brush, ellipse, limb } from './brush.js';
import { DrawnSheet } from './drawn-sheet.js';
import { directionNames as rows } from './from-above.js';
import type { Direction } from './from-above.js';
import { columns, drawPerson } from './person.js';
import type { Person } from './person-definition.js';

const cell = { width: 40, height: 48 };
const pivot = { x: 20, y: 42 };
const line = '#1c1830';
const brass = ['#b87a35', '#f0b850', '#ffe9a8'];
const skins = {
  fair: ['#b4685a', '#e8a982', '#fbd6ac'],
  tan: ['#8f4f41', '#c98560', '#eab583'],
  brown: ['#7a4638', '#ab6b4c', '#d69d70'],
};
const common = { line, eye: '#241a33', shoe: ['#3a1f2a', '#5a3230', '#8a5340'] };

/** Marlis sells fish: headscarf, apron, a basket on her arm. */
const marlis: Person = {
  ...common,
  skin: skins.fair,
  faceDown: 0.8,
  hair: ['#7d1f3c', '#bd3350', '#ea6a74'],
  cheek: '#e58a72',
  gait: { step: 3.4, swing: 2.6, bounce: 1.1 },
  dress: {
    cloth: ['#22375c', '#30548a', '#4f7fb2'],
    top: 3.5,
    wide: 6.4,
    hem: 3.1,
  },
  sleeve: ['#7d6a86', '#b9a6b4', '#e4d6d2'],
  legs: { spread: 1.9 },
  front({ brush, place, direction }) {
    if (direction === 'north' || direction === 'northeast') {
      // The bow of the apron.
      const bow = place(-3.6, 0, 12.4);
      brush.fill(limb({ x: bow.x - 1.6, y: bow.y }, 0.9, { x: bow.x + 1.6, y: bow.y }, 0.9), [
        '#b9a6b4',
        '#e9dfd6',
        '#fbf4e6',
      ]);
      brush.dot(bow.x - 1, bow.y + 1.8, '#e9dfd6');
      brush.dot(bow.x + 1, bow.y + 2.2, '#e9dfd6');
      return;
    }
    const top = place(3.3, 0, 13);
    const low = place(5.2, 0, 5);
    brush.fill(
      limb(top, direction === 'east' ? 1.1 : 2.5, low, direction === 'east' ? 1.5 : 3.4),
      ['#b9a6b4', '#e9dfd6', '#fbf4e6'],
      undefined,
      0.2,
    );
    const belt = place(2.6, 0, 13.2);
    brush.fill(
      limb(
        { x: belt.x - (direction === 'east' ? 3 : 3.4), y: belt.y - 0.6 },
        0.6,
        { x: belt.x + (direction === 'east' ? 1 : 3.2), y: belt.y - 0.6 },
        0.6,
      ),
      ['#b9a6b4', '#e9dfd6', '#fbf4e6'],
    );
  },
  holds: {
    side: -1,
    hand: [2.6, -0.2, 11.4],
    draw({ brush, palm }) {
      const { x, y } = { x: palm.x, y: palm.y + 2.6 };
      const wicker = ['#6e4a2c', '#a87842', '#d8ac68'];
      brush.fill(ellipse({ x, y: y + 0.6 }, 3.9, 2.7), wicker, line);
      brush.fill(ellipse({ x, y: y - 0.7 }, 3.5, 1.6), ['#4a2f24', '#6e4a2c', '#6e4a2c']);
      const fish = ['#5d7f96', '#9cc3cf', '#e2f3ee'];
      brush.fill(limb({ x: x - 2, y: y - 1.2 }, 0.9, { x: x + 0.6, y: y - 1.7 }, 1), fish);
      brush.fill(limb({ x: x + 0.4, y: y - 0.6 }, 0.9, { x: x + 2.6, y: y - 1.6 }, 0.6), fish);
      brush.dot(x - 2.6, y + 1.6, wicker[0]);
      brush.dot(x, y + 2, wicker[0]);
      brush.dot(x + 2.4, y + 1.6, wicker[0]);
    },
  },
  locks({ brush, head, direction }) {
    // What shows of her hair under the scarf.
    const dark = ['#3c2430', '#5a3230', '#7d4a38'];
    if (direction === 'south') brush.fill(ellipse({ x: head.x, y: head.y }, 4.3, 3.4), dark);
    if (direction === 'southeast') brush.fill(ellipse({ x: head.x + 1.4, y: head.y }, 3.8, 3.4), dark);
    if (direction === 'east') brush.fill(ellipse({ x: head.x + 2.2, y: head.y - 0.2 }, 3, 3.2), dark);
  },
  wears: {
    over({ brush, head, at, direction }) {
      const scarf = ['#7d1f3c', '#bd3350', '#ea6a74'];
      const knot = at(-4.6, 0, -1.6);
      if (direction === 'south' || direction === 'southeast') {
        // Tied under the chin.
        const chin = { x: head.x + (direction === 'south' ? 0 : 1.6), y: head.y + 5 };
        brush.fill(
          limb({ x: chin.x - 0.8, y: chin.y + 0.3 }, 0.7, { x: chin.x + 0.8, y: chin.y + 0.3 }, 0.7),
          scarf,
        );
      } else {
        const hang =
          direction === 'north' ? { x: knot.x, y: knot.y + 4.2 } : { x: knot.x - 1.6, y: knot.y + 3.6 };
        brush.fill(limb(knot, 1.5, hang, 2.1), scarf, line);
      }
      // White dots on the cloth.
      const dots: Readonly<Record<Direction, readonly (readonly [number, number])[]>> = {
        south: [
          [-3, -3],
          [0, -4],
          [3, -3],
        ],
        southeast: [
          [-3.5, -1.5],
          [-1, -4],
          [2, -3.6],
        ],
        east: [
          [-3.5, 1],
          [-1.5, -3],
          [1.5, -4],
          [-3.6, -1.6],
        ],
        northeast: [
          [-2, -3],
          [1.5, -3.6],
          [-0.5, 0],
          [2.5, 0],
        ],
        north: [
          [-3, -1],
          [0, -3.6],
          [3, -1],
          [-2, 2],
          [2.4, 2.2],
        ],
      };
      for (const [x, y] of dots[direction]) brush.dot(head.x + x, head.y + y, '#fbdcd0');
    },
  },
};

/** Where the buttons of a coat are, to the right of its middle. */
const buttons: Partial<Record<Direction, readonly number[]>> = {
  south: [-1.5, 1.5],
  southeast: [-1.3, 1.3],
  east: [0],
};

/** Odde is the pilot: peaked cap, long coat with brass buttons, a white beard. */
const odde: Person = {
  ...common,
  skin: skins.tan,
  hair: ['#a79fae', '#d8d0d2', '#f6efe6'],
  beard: ['#a79fae', '#e0d8d6', '#fbf6ec'],
  gait: { step: 3.8, swing: 2.6, bounce: 0.9 },
  dress: {
    cloth: ['#1b2444', '#2b3d68', '#456294'],
    top: 4.2,
    wide: 5.3,
    hem: 6,
    bands: [[11.4, 4.2, ['#101528', '#141a33', '#1b2444']]],
  },
  sleeve: ['#1b2444', '#2b3d68', '#456294'],
  legs: { spread: 2.2, cloth: ['#28213d', '#3b3354', '#554b72'] },
  front({ brush, place, direction }) {
    for (const side of buttons[direction] ?? [])
      for (const up of [15.2, 13, 9.6]) {
        const button = place(4.1, -side, up);
        brush.dot(button.x, button.y, brass[1]);
      }
    if (direction === 'north' || direction === 'northeast') {
      const slit = place(-4.6, 0, 7.2);
      for (let i = 0; i < 3; i++) brush.dot(slit.x, slit.y + i, '#141a33');
    }
  },
  wears: {
    over({ brush, head, at, direction, line: rim }) {
      const cloth = ['#141a33', '#22305a', '#3b5488'];
      if (direction !== 'north' && direction !== 'northeast') {
        const peak = at(4.2, 0, direction === 'east' ? 2.7 : 4.7);
        const [rx, ry] =
          direction === 'east' ? [2.4, 0.7] : direction === 'southeast' ? [3.4, 0.9] : [3.9, 0.9];
        brush.fill(ellipse({ x: peak.x, y: peak.y }, rx, ry), ['#141a33', '#1b2444', '#2b3d68'], rim);
      }
      brush.fill(ellipse({ x: head.x, y: head.y - 4.2 }, 5.3, 2.3), cloth, rim);
      brush.fill(
        ellipse({ x: head.x - 0.2, y: head.y - 5.8 }, 5.9, 2.6),
        ['#c9bfc0', '#f1e9de', '#fffaf0'],
        rim,
        0.1,
      );
      const badge = at(4, 0, 7.2);
      if (direction === 'south' || direction === 'southeast' || direction === 'east') {
        brush.dot(badge.x, badge.y, brass[1]);
        brush.dot(badge.x, badge.y - 1, brass[2]);
      }
    },
  },
};

/** Pim runs errands: a child with a flat cap, an oversized scarf and a letter bag. */
const pim: Person = {
  ...common,
  size: 0.84,
  skin: skins.brown,
  hair: ['#2a1a26', '#3f2732', '#5c3a40'],
  cheek: '#a85a48',
  gait: { step: 4.6, swing: 3.8, bounce: 1.6 },
  dress: { cloth: ['#7a3f24', '#b8692f', '#e0994a'], top: 3.7, wide: 4.9, hem: 8.6 },
  sleeve: ['#7a3f24', '#b8692f', '#e0994a'],
  legs: { spread: 2.2, cloth: ['#33405c', '#4a5f80', '#6c86a4'], sock: ['#b9a6b4', '#e9dfd6', '#fbf4e6'] },
  front({ brush, place, direction }) {
    // The strap from the shoulder, and the bag on the other hip.
    const bag = ['#4a2f24', '#74492f', '#a87842'];
    if (direction !== 'north' && direction !== 'northeast') {
      const [from, to] = [place(2.4, 2.8, 16.6), place(3.4, -3, 11)];
      brush.fill(limb(from, 0.6, to, 0.6), bag);
    } else {
      const [from, to] = [place(-2.4, 2.8, 16.6), place(-3.4, -3, 11)];
      brush.fill(limb(from, 0.6, to, 0.6), bag);
    }
    const hip = place(-0.4, -4.8, 9.6);
    brush.fill(limb({ x: hip.x - 1.3, y: hip.y }, 2.1, { x: hip.x + 1.3, y: hip.y }, 2.1), bag, line);
    brush.dot(hip.x, hip.y + 0.4, brass[2]);
  },
  wears: {
    over({ brush, head, at, direction, line: rim, pose }) {
      const wool = ['#2d6a5c', '#4b9c7c', '#86cf9c'];
      const neck = { x: head.x + (direction === 'east' ? 0.2 : 0), y: head.y + 5.7 };
      brush.fill(limb({ x: neck.x - 2.9, y: neck.y }, 1.35, { x: neck.x + 2.9, y: neck.y }, 1.35), wool, rim);
      const tail = at(-3.4, 1.6, -6);
      const end = {
        x: tail.x + pose.drag * (direction === 'east' ? 1.6 : 0.5),
        y: tail.y + 4 - Math.abs(pose.drag) * 0.7,
      };
      if (direction !== 'south' && direction !== 'southeast')
        brush.fill(limb({ x: tail.x, y: tail.y }, 1.5, end, 1.9), wool, rim);
      else {
        const front = at(3, 2, -6.4);
        brush.fill(
          limb({ x: front.x, y: front.y }, 1.4, { x: front.x + 0.3, y: front.y + 3.2 + pose.nod }, 1.7),
          wool,
          rim,
        );
      }
      const tweed = ['#4b4169', '#75689a', '#a497c4'];
      if (direction !== 'north' && direction !== 'northeast') {
        const peak = at(3.9, 0, direction === 'east' ? 3 : 5);
        brush.fill(
          ellipse(
            { x: peak.x, y: peak.y },
            direction === 'east' ? 2.4 : 3.5,
            direction === 'east' ? 0.8 : 0.9,
          ),
          ['#332b4d', '#4b4169', '#75689a'],
          rim,
        );
      }
      brush.fill(ellipse({ x: head.x - 0.3, y: head.y - 4.7 }, 5.7, 2.7), tweed, rim, 0.1);
      brush.dot(head.x - 0.3, head.y - 7, tweed[2]);
    },
  },
};

const sefaHair = ['#1f1a2e', '#352a44', '#54435e'];
/** Sefa mends nets: a wide straw hat, a shawl, a long skirt. */
const sefa: Person = {
  ...common,
  skin: skins.tan,
  hair: sefaHair,
  cheek: '#cf7a5c',
  gait: { step: 3.2, swing: 1.9, bounce: 0.8 },
  dress: {
    cloth: ['#5a2b4c', '#8a3f63', '#b9607c'],
    top: 3.5,
    wide: 6.1,
    hem: 2.7,
    bands: [
      [5.4, 5.4, ['#8f4f41', '#e0a04a', '#f7d27e']],
      [4.2, 5.8, ['#8f4f41', '#e0a04a', '#f7d27e']],
    ],
  },
  sleeve: ['#2f5a4e', '#4f8a6c', '#86b98a'],
  legs: { spread: 1.8 },
  front({ brush, place, direction }) {
    const shawl = ['#2f5a4e', '#4f8a6c', '#86b98a'];
    const front = direction !== 'north' && direction !== 'northeast';
    const [top, tip] = front
      ? [place(1.6, 0, 16.4), place(3.6, 0, 11.6)]
      : [place(-1.2, 0, 16.4), place(-4, 0, 9)];
    brush.fill(limb(top, 4, tip, front ? 1.5 : 2), shawl, line);
    if (front) {
      const pin = place(3.9, 0, 14);
      brush.dot(pin.x, pin.y, brass[2]);
    } else {
      const fringe = place(-4.4, 0, 7.6);
      for (const dx of [-2, 0, 2]) brush.dot(fringe.x + dx, fringe.y + 1 - Math.abs(dx) * 0.4, shawl[2]);
    }
  },
  locks({ brush, at, direction, line: rim, pose }) {
    // A plait down her back.
    if (direction === 'south' || direction === 'southeast') return;
    const root = at(-4.4, 0, -1.6);
    const end = at(-4.8, 0.8 + pose.sway, -10);
    brush.fill(limb(root, 1.7, end, 1.1), sefaHair, rim);
    brush.dot(end.x, end.y - 1, brass[1]);
  },
  wears: {
    over({ brush, at, line: rim, direction }) {
      const straw = ['#a8773c', '#dcb264', '#f8e2a0'];
      const brim = at(0.2, 0, 4.6);
      brush.fill(ellipse({ x: brim.x, y: brim.y }, 7.7, 2.7), straw, rim, 0.1);
      brush.fill(
        ellipse({ x: brim.x, y: brim.y - 1 }, 4.7, 1.8),
        ['#5a2b4c', '#8a3f63', '#b9607c'],
        undefined,
      );
      brush.fill(ellipse({ x: brim.x, y: brim.y - 2.2 }, 4.3, 2.5), straw, undefined, 0.25);
      if (direction === 'north' || direction === 'northeast') {
        const tail = at(-5.6, 0, 2.4);
        brush.dot(tail.x, tail.y, '#8a3f63');
        brush.dot(tail.x, tail.y + 1, '#8a3f63');
      }
    },
  },
};

/** The starter character of "dot-hop new": a younger keeper in oilskins. */
const oilskin = ['#8a5a1c', '#d59a2e', '#f6cf62'];
const keeper: Person = {
  ...odde,
  beard: undefined,
  cheek: '#cf7a5c',
  hair: ['#3c2430', '#5a3230', '#7d4a38'],
  dress: { ...odde.dress, cloth: oilskin },
  sleeve: oilskin,
};

const people = { marlis, odde, pim, sefa, keeper };

for (const [name, person] of Object.entries(people)) {
  const sheet = new DrawnSheet(cell, columns, rows.length);
  rows.forEach((direction, row) => {
    for (let column = 0; column < columns; column++) {
      const brush = new Brush(cell.width, cell.height, pivot);
      drawPerson(brush, person, direction, column);
      brush.cleanUp();
      brush.outline(() => line);
      sheet.put(brush.colours, column, row);
    }
  });
  await sheet.write(`${name === 'keeper' ? '../../packages/cli/starter' : '../townsfolk'}/${name}.png`);
  console.log(`${columns * rows.length} frames of ${name} drawn`);
}
