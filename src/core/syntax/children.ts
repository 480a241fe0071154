import type { SyntaxNode } from './node.ts'

/** Members of a node that hold no code. */
const skipped = new Set([
  'parent',
  'scope',
  'loc',
  'extra',
  'typeAnnotation',
  'returnType',
  'typeParameters',
  'typeArguments',
])

/**
 * Where the nodes of the ESTree standard keep those below them, in the order of the text. A bundle has a million nodes, and to
 * ask each for its members takes as long as to parse it. Other kinds, of TypeScript and JSX, are asked.
 */
const keysOfTypes: Readonly<Record<string, readonly string[]>> = {
  ArrayExpression: ['elements'],
  ArrayPattern: ['elements'],
  ArrowFunctionExpression: ['params', 'body'],
  AssignmentExpression: ['left', 'right'],
  AssignmentPattern: ['left', 'right'],
  AwaitExpression: ['argument'],
  BinaryExpression: ['left', 'right'],
  BlockStatement: ['body'],
  BreakStatement: ['label'],
  CallExpression: ['callee', 'arguments'],
  CatchClause: ['param', 'body'],
  ChainExpression: ['expression'],
  ClassBody: ['body'],
  ConditionalExpression: ['test', 'consequent', 'alternate'],
  ContinueStatement: ['label'],
  DebuggerStatement: [],
  DoWhileStatement: ['body', 'test'],
  EmptyStatement: [],
  ExpressionStatement: ['expression'],
  ForInStatement: ['left', 'right', 'body'],
  ForOfStatement: ['left', 'right', 'body'],
  ForStatement: ['init', 'test', 'update', 'body'],
  FunctionDeclaration: ['id', 'params', 'body'],
  FunctionExpression: ['id', 'params', 'body'],
  Identifier: [],
  IfStatement: ['test', 'consequent', 'alternate'],
  LabeledStatement: ['label', 'body'],
  Literal: [],
  LogicalExpression: ['left', 'right'],
  MemberExpression: ['object', 'property'],
  NewExpression: ['callee', 'arguments'],
  ObjectExpression: ['properties'],
  ObjectPattern: ['properties'],
  ParenthesizedExpression: ['expression'],
  PrivateIdentifier: [],
  Program: ['body'],
  Property: ['key', 'value'],
  RestElement: ['argument'],
  ReturnStatement: ['argument'],
  SequenceExpression: ['expressions'],
  SpreadElement: ['argument'],
  Super: [],
  SwitchCase: ['test', 'consequent'],
  SwitchStatement: ['discriminant', 'cases'],
  TemplateElement: [],
  TemplateLiteral: ['expressions', 'quasis'],
  ThisExpression: [],
  ThrowStatement: ['argument'],
  TryStatement: ['block', 'handler', 'finalizer'],
  UnaryExpression: ['argument'],
  UpdateExpression: ['argument'],
  VariableDeclaration: ['declarations'],
  VariableDeclarator: ['id', 'init'],
  WhileStatement: ['test', 'body'],
  YieldExpression: ['argument'],
}
const known: ReadonlyMap<string, readonly string[]> = new Map(Object.entries(keysOfTypes))

/** Calls `visit` with the nodes right below one, each with the key it stands under, in the order of the text. */
export function forEachChild(node: SyntaxNode, visit: (child: SyntaxNode, key: string) => void): void {
  const members = node as unknown as Readonly<Record<string, unknown>>
  const keys = known.get(node.type)
  if (keys) {
    for (let i = 0; i < keys.length; i++) visitMember(members, keys[i] as string, visit)
    return
  }
  for (const key in members) if (!skipped.has(key)) visitMember(members, key, visit)
}

function visitMember(
  members: Readonly<Record<string, unknown>>,
  key: string,
  visit: (child: SyntaxNode, key: string) => void,
): void {
  const value = members[key]
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length; i++) if (isNode(value[i])) visit(value[i], key)
  } else if (isNode(value)) visit(value, key)
}

/** The nodes right below one, in the order of the text. */
export function childrenOf(node: SyntaxNode): SyntaxNode[] {
  const found: SyntaxNode[] = []
  forEachChild(node, (child) => found.push(child))
  return found
}

function isNode(value: unknown): value is SyntaxNode {
  return typeof value === 'object' && value !== null && 'type' in value && 'start' in value
}
