// Small changes of a source text, each of which a test should notice: a border moved by one, a clause dropped, an operator swapped.
import ts from 'typescript';

/** One change: what stands between two places of a text is replaced. */
export interface Change {
  readonly from: number;
  readonly to: number;
  readonly put: string;
  /** From 1. */
  readonly line: number;
  /** What it changes, to read. */
  readonly what: string;
}

const swapped: Partial<Record<ts.SyntaxKind, readonly string[]>> = {
  [ts.SyntaxKind.LessThanToken]: ['<=', '>='],
  [ts.SyntaxKind.LessThanEqualsToken]: ['<', '>'],
  [ts.SyntaxKind.GreaterThanToken]: ['>=', '<='],
  [ts.SyntaxKind.GreaterThanEqualsToken]: ['>', '<'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: ['!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: ['==='],
  [ts.SyntaxKind.PlusToken]: ['-'],
  [ts.SyntaxKind.MinusToken]: ['+'],
  [ts.SyntaxKind.AsteriskToken]: ['/'],
  [ts.SyntaxKind.SlashToken]: ['*'],
  [ts.SyntaxKind.AmpersandToken]: ['|'],
  [ts.SyntaxKind.BarToken]: ['&'],
};
const twins: Readonly<Record<string, string>> = {
  min: 'max',
  max: 'min',
  some: 'every',
  every: 'some',
  floor: 'ceil',
  ceil: 'floor',
};

/** All changes of a TypeScript text, in its order. */
export function changesOf(text: string): Change[] {
  const file = ts.createSourceFile('a.ts', text, ts.ScriptTarget.ES2022, true);
  const found: Change[] = [];
  const add = (node: ts.Node, put: string): void => {
    const [from, to] = [node.getStart(file), node.getEnd()];
    const line = file.getLineAndCharacterOfPosition(from).line + 1;
    found.push({ from, to, put, line, what: `${text.slice(from, to)} -> ${put}` });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const { operatorToken: sign, left, right } = node;
      // A text that is put together by + has no other operator.
      const isText = [left, right].some((one) => ts.isStringLiteralLike(one) || ts.isTemplateExpression(one));
      if (!isText) for (const other of swapped[sign.kind] ?? []) add(sign, other);
      if ([ts.SyntaxKind.AmpersandAmpersandToken, ts.SyntaxKind.BarBarToken].includes(sign.kind)) {
        add(node, left.getText(file));
        add(node, right.getText(file));
      }
    }
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, node.operand.getText(file));
    // Large numbers are bounds and tolerances.
    if (ts.isNumericLiteral(node) && !ts.isEnumMember(node.parent) && Number(node.text) < 1000)
      add(node, String(Number(node.text) + 1));
    if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true');
    if (ts.isIfStatement(node)) add(node.expression, 'false');
    const twin = ts.isPropertyAccessExpression(node) ? twins[node.name.text] : undefined;
    if (ts.isPropertyAccessExpression(node) && twin !== undefined) add(node.name, twin);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found.sort((a, b) => a.from - b.from || a.to - b.to);
}
