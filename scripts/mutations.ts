import ts from 'typescript'

/** One small change of a source that changes what it does. */
export interface Mutation {
  readonly file: string
  /** Line and column, from 1. */
  readonly line: number
  readonly column: number
  readonly start: number
  readonly end: number
  readonly before: string
  readonly after: string
  /** The expression whose value it changes: who never asks for that never notices. */
  readonly expression: { readonly start: number; readonly end: number }
  /** What kind of change it is. */
  readonly kind: 'condition' | 'comparison' | 'logic' | 'arithmetic' | 'truth' | 'number'
}

/** Operators and what takes their place: bounds move by one, directions turn round, and becomes or. */
const operators = new Map<ts.SyntaxKind, readonly [string, Mutation['kind']]>([
  [ts.SyntaxKind.LessThanToken, ['<=', 'comparison']],
  [ts.SyntaxKind.LessThanEqualsToken, ['<', 'comparison']],
  [ts.SyntaxKind.GreaterThanToken, ['>=', 'comparison']],
  [ts.SyntaxKind.GreaterThanEqualsToken, ['>', 'comparison']],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, ['!==', 'comparison']],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, ['===', 'comparison']],
  [ts.SyntaxKind.AmpersandAmpersandToken, ['||', 'logic']],
  [ts.SyntaxKind.BarBarToken, ['&&', 'logic']],
  [ts.SyntaxKind.PlusToken, ['-', 'arithmetic']],
  [ts.SyntaxKind.MinusToken, ['+', 'arithmetic']],
  [ts.SyntaxKind.AsteriskToken, ['/', 'arithmetic']],
  [ts.SyntaxKind.SlashToken, ['*', 'arithmetic']],
])

/** Text is joined by the same sign as numbers are added: taking it away is no change of a rule. */
const isText = (node: ts.Node): boolean =>
  ts.isStringLiteralLike(node) ||
  ts.isTemplateExpression(node) ||
  (ts.isBinaryExpression(node) && (isText(node.left) || isText(node.right)))

/** Every mutation that a source allows, in the order of the text. Types are never touched. */
export function mutationsIn(file: string, text: string): Mutation[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true)
  const found: Mutation[] = []
  const put = (node: ts.Node, after: string, kind: Mutation['kind'], whole = node) => {
    const start = node.getStart(source)
    const { line, character } = source.getLineAndCharacterOfPosition(start)
    found.push({
      file,
      line: line + 1,
      column: character + 1,
      start,
      end: node.getEnd(),
      before: text.slice(start, node.getEnd()),
      after,
      expression: { start: whole.getStart(source), end: whole.getEnd() },
      kind,
    })
  }
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node)) return
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return
    if (ts.isIfStatement(node) || ts.isConditionalExpression(node)) {
      const condition = ts.isIfStatement(node) ? node.expression : node.condition
      put(condition, `!(${condition.getText(source)})`, 'condition')
    } else if (ts.isBinaryExpression(node)) {
      const other = operators.get(node.operatorToken.kind)
      if (other && !(other[1] === 'arithmetic' && isText(node))) put(node.operatorToken, ...other, node)
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false', 'truth')
    else if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true', 'truth')
    else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent))
      put(node, String(Number(node.text) + 1), 'number')
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found
}

/** The source with a mutation made in it. */
export const mutated = (text: string, { start, end, after }: Mutation): string =>
  text.slice(0, start) + after + text.slice(end)
