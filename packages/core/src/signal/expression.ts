/** An expression as it was written, with the place of each part in characters from 0. */
export type Expression =
  | { readonly kind: 'number'; readonly value: number; readonly at: number; readonly end: number }
  | { readonly kind: 'flag'; readonly value: boolean; readonly at: number; readonly end: number }
  | { readonly kind: 'text'; readonly value: string; readonly at: number; readonly end: number }
  | { readonly kind: 'name'; readonly name: string; readonly at: number; readonly end: number }
  | {
      readonly kind: 'call';
      readonly name: string;
      readonly parts: readonly Expression[];
      readonly at: number;
      readonly end: number;
    }
  | {
      readonly kind: 'unary';
      readonly operator: '!' | '-';
      readonly part: Expression;
      readonly at: number;
      readonly end: number;
    }
  | {
      readonly kind: 'binary';
      readonly operator: BinaryOperator;
      readonly left: Expression;
      readonly right: Expression;
      readonly at: number;
      readonly end: number;
    }
  | {
      readonly kind: 'choose';
      readonly test: Expression;
      readonly yes: Expression;
      readonly no: Expression;
      readonly at: number;
      readonly end: number;
    };

export type Comparison = '<' | '<=' | '>' | '>=' | '==' | '!=';
export type Arithmetic = '+' | '-' | '*' | '/' | '%';
export type BinaryOperator = Comparison | Arithmetic | '&&' | '||';

/** Why a text is not an expression. */
export class ExpressionError extends Error {
  /** @param at where, in characters from 0 */
  constructor(
    readonly at: number,
    detail: string,
  ) {
    super(detail);
  }
}

/** What a name can be compared with: the options of a choice, the states of a track; `undefined` for any other name. */
export type OptionsOf = (name: string) => readonly string[] | undefined;

interface Token {
  readonly kind: 'number' | 'name' | 'text' | 'sign' | 'end';
  readonly text: string;
  readonly at: number;
}

/** The signs that can be written as words. */
export const wordedSigns: ReadonlyMap<string, string> = new Map([
  ['and', '&&'],
  ['or', '||'],
  ['not', '!'],
]);

/** A sign as it is meant: `and` is `&&`, `===` is `==`. */
const meant = ({ text }: Token): string => wordedSigns.get(text) ?? text.slice(0, 2);

const tokenPattern =
  /\s*(?:(\d+\.?\d*(?:[eE][+-]?\d+)?|\.\d+)|([A-Za-z_]\w*(?:\.\w+)?)|('[^']*'|"[^"]*")|(===|!==|==|!=|<=|>=|&&|\|\||[-+*/%<>!()?:,]))/y;

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  tokenPattern.lastIndex = 0;
  let end = 0;
  for (let found = tokenPattern.exec(text); found !== null; found = tokenPattern.exec(text)) {
    end = tokenPattern.lastIndex;
    const [, number, name, quoted, sign] = found;
    const word = number ?? name ?? quoted ?? sign ?? '';
    const isSign = sign !== undefined || wordedSigns.has(word);
    const value = number !== undefined ? 'number' : name !== undefined ? 'name' : 'text';
    tokens.push({ kind: isSign ? 'sign' : value, text: word, at: end - word.length });
  }
  if (end < text.length) refuseRest(text, end);
  tokens.push({ kind: 'end', text: '', at: text.length });
  return tokens;
}

/** Refuses what follows the last token, unless it is nothing but space. */
function refuseRest(text: string, from: number): void {
  const at = from + text.slice(from).search(/\S|$/);
  const sign = text[at];
  if (sign === undefined) return;
  const meant = { '=': '==', '&': 'and', '|': 'or' }[sign];
  const hint = meant === undefined ? '' : `; did you mean "${meant}"?`;
  throw new ExpressionError(at, `"${sign}" is not part of an expression${hint}`);
}

/** Binding strength of the binary operators, as in ECMAScript (ECMA-262, 13.6 to 13.13). */
const strength: Record<string, number> = {
  '||': 1,
  '&&': 2,
  '==': 3,
  '!=': 3,
  '<': 4,
  '<=': 4,
  '>': 4,
  '>=': 4,
  '+': 5,
  '-': 5,
  '*': 6,
  '/': 6,
  '%': 6,
};

/** The deepest nesting that is read; more than any person writes, and less than the stack holds. */
const deepest = 100;

/** The most words and signs of an expression. */
const mostTokens = 2000;

class Parser {
  private readonly tokens: Token[];
  private next = 0;
  private depth = 0;

  constructor(
    text: string,
    private readonly optionsOf: OptionsOf | undefined,
  ) {
    this.tokens = tokensOf(text);
    const excess = this.tokens[mostTokens];
    // What reads an expression calls itself for each part of a chain, and a chain without end would end the program.
    if (excess !== undefined) throw new ExpressionError(excess.at, `it has more than ${mostTokens} parts`);
  }

  whole(): Expression {
    if (this.peek().kind === 'end') throw new ExpressionError(0, 'it is empty');
    const expression = this.choice();
    const left = this.peek();
    const hint = left.kind === 'name' ? '; join two by and, or' : '';
    if (left.kind !== 'end')
      throw new ExpressionError(left.at, `"${left.text}" was not expected here${hint}`);
    return expression;
  }

  private choice(): Expression {
    if (++this.depth > deepest) throw new ExpressionError(this.peek().at, 'it is nested too deeply');
    const test = this.binary(1);
    let result = test;
    if (this.take('?')) {
      const yes = this.choice();
      this.expect(':');
      const no = this.choice();
      result = { kind: 'choose', test, yes, no, at: test.at, end: no.end };
    }
    this.depth--;
    return result;
  }

  private binary(least: number): Expression {
    let left = this.unary();
    for (;;) {
      const sign = this.peek();
      const operator = meant(sign);
      const bound = sign.kind === 'sign' ? (strength[operator] ?? 0) : 0;
      if (bound < least) return left;
      this.next++;
      let right = this.binary(bound + 1);
      const { at } = left;
      const { end } = right;
      // What a choice or a track is compared with is a text, with quotes or without: `mode == ladder`.
      if (bound === strength['==']) {
        if (this.hasOptions(left)) right = asText(right);
        else if (this.hasOptions(right)) left = asText(left);
      }
      left = { kind: 'binary', operator: operator as BinaryOperator, left, right, at, end };
    }
  }

  private hasOptions(part: Expression): boolean {
    return part.kind === 'name' && this.optionsOf?.(part.name) !== undefined;
  }

  private unary(): Expression {
    const sign = this.peek();
    const operator = meant(sign);
    if (operator !== '!' && operator !== '-') return this.primary();
    if (++this.depth > deepest) throw new ExpressionError(sign.at, 'it is nested too deeply');
    this.next++;
    // The word reaches further than the sign: `not speed > 5` is read as it is said.
    const part = sign.text === 'not' ? this.binary(strength['==']!) : this.unary();
    this.depth--;
    return { kind: 'unary', operator, part, at: sign.at, end: part.end };
  }

  private primary(): Expression {
    const token = this.peek();
    this.next++;
    const end = token.at + token.text.length;
    if (token.kind === 'number') {
      const value = Number(token.text);
      if (value === Infinity) throw new ExpressionError(token.at, `"${token.text}" is too large a number`);
      return { kind: 'number', value, at: token.at, end };
    }
    if (token.kind === 'text') return { kind: 'text', value: token.text.slice(1, -1), at: token.at, end };
    if (token.text === '(') {
      const inner = this.choice();
      this.expect(')');
      // The brackets belong to it where it is shown as it was written.
      return { ...inner, at: token.at, end: this.tokens[this.next - 1]!.at + 1 };
    }
    if (token.kind !== 'name') {
      const what =
        token.kind === 'end' ? 'it ends where a value is wanted' : `"${token.text}" was not expected here`;
      throw new ExpressionError(token.at, what);
    }
    if (token.text === 'true' || token.text === 'false')
      return { kind: 'flag', value: token.text === 'true', at: token.at, end };
    if (!this.take('(')) return { kind: 'name', name: token.text, at: token.at, end };
    const parts: Expression[] = [];
    if (!this.take(')')) {
      do parts.push(this.choice());
      while (this.take(','));
      this.expect(')');
    }
    return { kind: 'call', name: token.text, parts, at: token.at, end: this.tokens[this.next - 1]!.at + 1 };
  }

  private peek(): Token {
    return this.tokens[this.next] ?? this.tokens[this.tokens.length - 1]!;
  }

  private take(sign: string): boolean {
    if (this.peek().kind !== 'sign' || this.peek().text !== sign) return false;
    this.next++;
    return true;
  }

  private expect(sign: string): void {
    const found = this.peek();
    if (!this.take(sign))
      throw new ExpressionError(
        found.at,
        `"${sign}" is wanted ${found.kind === 'end' ? 'at its end' : `before "${found.text}"`}`,
      );
  }
}

const asText = (part: Expression): Expression =>
  part.kind === 'name' ? { ...part, kind: 'text', value: part.name } : part;

/**
 * Reads an expression: literals, names, `! - && || == != < <= > >= + - * / % ?:`, brackets and calls. `not`, `and` and `or` mean `!`, `&&`
 * and `||`; `not` takes a whole comparison.
 *
 * @param optionsOf of a name that is compared with options or states, these: they are read as texts then, and need no quotes
 * @throws {ExpressionError} with the place of the fault
 */
export function parseExpression(text: string, optionsOf?: OptionsOf): Expression {
  return new Parser(text, optionsOf).whole();
}

/** The expressions that an expression is made of. */
export function partsOf(expression: Expression): readonly Expression[] {
  switch (expression.kind) {
    case 'call':
      return expression.parts;
    case 'unary':
      return [expression.part];
    case 'binary':
      return [expression.left, expression.right];
    case 'choose':
      return [expression.test, expression.yes, expression.no];
    default:
      return [];
  }
}

/** An expression written the one way all terms are, so that `vy<0` and `(vy < 0)` are one term. */
export function written(expression: Expression): string {
  const inner = (part: Expression): string =>
    part.kind === 'binary' || part.kind === 'choose' ? `(${written(part)})` : written(part);
  // The left side of a chain of one strength goes without brackets, however long the chain is.
  const first = (part: Expression, operator: BinaryOperator): string =>
    part.kind === 'binary' && strength[part.operator] === strength[operator] ? written(part) : inner(part);
  switch (expression.kind) {
    case 'name':
      return expression.name;
    case 'call':
      return `${expression.name}(${expression.parts.map(written).join(', ')})`;
    case 'unary':
      return expression.operator + inner(expression.part);
    case 'binary':
      return `${first(expression.left, expression.operator)} ${expression.operator} ${inner(expression.right)}`;
    case 'choose':
      return `${inner(expression.test)} ? ${inner(expression.yes)} : ${inner(expression.no)}`;
    case 'text':
      return `'${expression.value}'`;
    default:
      return String(expression.value);
  }
}
