import type { BitWords } from './condition.js';

/**
 * A numeric expression as instructions for a small stack machine.
 *
 * Why not closures: a tree of closures per controller makes every call site in the step megamorphic and
 * boxes each intermediate number. A flat list of instructions over one shared stack does neither.
 */
export interface Program {
  /** Pairs of an instruction and its operand: a constant's index, a number's slot or a bit. */
  readonly code: readonly number[];
  readonly constants: readonly number[];
}

/** How many numbers are kept for each slot: its value, and the two ends of the interval in which a new value changes nothing. */
const slotSize = 3;

/** Where the value of a number slot is kept, counted from the first slot. Behind it are the two ends of its interval. */
export const placeOf = (slot: number): number => slotSize * slot;

/** The instructions. A flag on the stack is 1 or 0. */
export const enum Op {
  constant = 0,
  number = 1,
  /** Pushes 1 when a bit of the words is set; its operand counts the bits from the first word on. */
  bit = 2,
  negate = 4,
  not = 5,
  add = 6,
  subtract = 7,
  multiply = 8,
  divide = 9,
  remainder = 10,
  less = 11,
  lessEqual = 12,
  more = 13,
  moreEqual = 14,
  equal = 15,
  notEqual = 16,
  and = 17,
  or = 18,
  choose = 19,
  abs = 20,
  sign = 21,
  floor = 22,
  ceil = 23,
  round = 24,
  sqrt = 25,
  min = 26,
  max = 27,
  hypot = 28,
  clamp = 29,
}

/** The functions an expression may call: how many values each takes. */
export const functions: Readonly<Record<string, { readonly op: number; readonly takes: number }>> = {
  abs: { op: Op.abs, takes: 1 },
  sign: { op: Op.sign, takes: 1 },
  floor: { op: Op.floor, takes: 1 },
  ceil: { op: Op.ceil, takes: 1 },
  round: { op: Op.round, takes: 1 },
  sqrt: { op: Op.sqrt, takes: 1 },
  min: { op: Op.min, takes: 2 },
  max: { op: Op.max, takes: 2 },
  hypot: { op: Op.hypot, takes: 2 },
  clamp: { op: Op.clamp, takes: 3 },
};

/** One stack for all: a program runs to its end before another starts. Expressions nest at most 100 deep. */
const stack = new Float64Array(1024);

/** In its first place is the value of the program that ran last: a number that is handed back would be put into a box. */
export const programValue: Float64Array = stack;

/**
 * Runs a program. Its value is then in {@link programValue}; a flag is 1 or 0. A result that is not a finite number counts as
 * 0, also inside an expression: a division by 0, the root of a negative number, an overflow. So a number means the same in a
 * condition and when it is read, and no comparison meets `NaN`.
 *
 * @param numbers where the numbers of signals are kept
 * @param base the place of the first slot there
 * @param words the bits that it may read
 * @param at where they begin in that array
 */
export function runProgram(
  program: Program,
  numbers: Float64Array,
  base: number,
  words: BitWords,
  at: number,
): void {
  const { code, constants } = program;
  let top = -1;
  for (let i = 0; i < code.length; i += 2) {
    const operand = code[i + 1]!;
    switch (code[i]) {
      case Op.constant:
        stack[++top] = constants[operand]!;
        break;
      case Op.number:
        stack[++top] = numbers[base + placeOf(operand)]!;
        break;
      case Op.bit:
        stack[++top] = (words[at + (operand >> 5)]! >>> (operand & 31)) & 1;
        break;
      case Op.negate:
        stack[top] = -stack[top]!;
        break;
      case Op.not:
        stack[top] = stack[top] === 0 ? 1 : 0;
        break;
      case Op.abs:
        stack[top] = Math.abs(stack[top]!);
        break;
      case Op.sign:
        stack[top] = Math.sign(stack[top]!);
        break;
      case Op.floor:
        stack[top] = Math.floor(stack[top]!);
        break;
      case Op.ceil:
        stack[top] = Math.ceil(stack[top]!);
        break;
      case Op.round:
        stack[top] = Math.round(stack[top]!);
        break;
      case Op.sqrt:
        stack[top] = stack[top]! < 0 ? 0 : Math.sqrt(stack[top]!);
        break;
      case Op.choose:
      case Op.clamp: {
        const third = stack[top--]!;
        const second = stack[top--]!;
        const first = stack[top]!;
        if (code[i] === Op.choose) stack[top] = first !== 0 ? second : third;
        else stack[top] = Math.min(Math.max(first, second), third);
        break;
      }
      default:
        combine(code[i]!, --top);
    }
  }
}

/** The value of a program as a plain number. It is for callers outside the step, because it may allocate. */
export function valueOf(
  program: Program,
  numbers: Float64Array,
  base: number,
  words: BitWords,
  at = 0,
): number {
  runProgram(program, numbers, base, words, at);
  return stack[0]!;
}

/** Combines two values on the stack, the first at a place, and leaves the result there. */
function combine(op: number, place: number): void {
  const left = stack[place]!;
  const right = stack[place + 1]!;
  switch (op) {
    case Op.add:
      stack[place] = left + right;
      break;
    case Op.subtract:
      stack[place] = left - right;
      break;
    case Op.multiply:
      stack[place] = left * right;
      break;
    case Op.divide:
      stack[place] = left / right;
      break;
    case Op.remainder:
      stack[place] = left % right;
      break;
    case Op.less:
      stack[place] = left < right ? 1 : 0;
      break;
    case Op.lessEqual:
      stack[place] = left <= right ? 1 : 0;
      break;
    case Op.more:
      stack[place] = left > right ? 1 : 0;
      break;
    case Op.moreEqual:
      stack[place] = left >= right ? 1 : 0;
      break;
    case Op.equal:
      stack[place] = left === right ? 1 : 0;
      break;
    case Op.notEqual:
      stack[place] = left !== right ? 1 : 0;
      break;
    case Op.and:
      stack[place] = left !== 0 && right !== 0 ? 1 : 0;
      break;
    case Op.or:
      stack[place] = left !== 0 || right !== 0 ? 1 : 0;
      break;
    case Op.min:
      stack[place] = Math.min(left, right);
      break;
    case Op.max:
      stack[place] = Math.max(left, right);
      break;
    default:
      hypotenuse(place);
  }
  const result = stack[place]!;
  if (result - result !== 0) stack[place] = 0;
}

/**
 * The length of the vector of two values on the stack, scaled by the larger so that no square overflows. The language's own
 * allocates at every call, and need not be the same to the last bit in every engine.
 */
function hypotenuse(place: number): void {
  const left = Math.abs(stack[place]!);
  const right = Math.abs(stack[place + 1]!);
  const most = Math.max(left, right);
  if (left === Infinity || right === Infinity) stack[place] = Infinity;
  else if (most === 0) stack[place] = 0;
  else stack[place] = Math.sqrt((left / most) ** 2 + (right / most) ** 2) * most;
}

/** The number slots that a program reads, each once. */
export function slotsOf({ code }: Program): number[] {
  const slots = new Set<number>();
  for (let i = 0; i < code.length; i += 2) if (code[i] === Op.number) slots.add(code[i + 1]!);
  return [...slots];
}
