import type { Identifier, ImportDeclaration, MemberExpression, ObjectPattern, Program } from 'acorn'
import type { EnvironmentModule } from '../../frameworks/framework.ts'
import { dottedName, isCall, keyName, memberName, type SyntaxNode } from '../../syntax/node.ts'
import { isRead } from '../../syntax/scope.ts'

/** Where the sources of a framework read variables. */
export interface AccessRules {
  /** Objects of the language: `import.meta.env`, `process.env`. */
  readonly environmentObjects: readonly string[]
  /** Modules that export variables. */
  readonly environmentModules?: readonly EnvironmentModule[]
  /** Modules that run while building, and whose values go into the pages. */
  readonly dataFiles?: RegExp
}

/** What one module calls the variables it imports, and the objects that hold them. */
export interface LocalNames {
  readonly variables: ReadonlyMap<string, string>
  readonly objects: ReadonlySet<string>
  /** Those of them that no build for the browser writes out. */
  readonly serverOnly: ReadonlySet<string>
}

/** A read of a variable: its name, null when only the running code knows it. */
export interface Access {
  readonly name: string | null
  readonly at: SyntaxNode
  /** Read from an object that holds all of them, which the build then writes out whole. */
  readonly fromWhole: boolean
  readonly serverOnly: boolean
}

/** Names every build sets by itself. */
const builtIn = new Set([
  'MODE',
  'BASE_URL',
  'PROD',
  'DEV',
  'SSR',
  'NODE_ENV',
  'LEGACY',
  'SITE',
  'ASSETS_PREFIX',
])

/** The names that a module's imports and constants give to variables and their objects. */
export function localNames({ body }: Program, rules: AccessRules): LocalNames {
  const variables = new Map<string, string>()
  const objects = new Set<string>()
  const serverOnly = new Set<string>()
  for (const statement of body) {
    if (statement.type === 'ImportDeclaration') {
      for (const { local, module, name } of importsOf(statement, rules)) {
        if (module.exports === 'names') variables.set(local, name)
        else if (module.exports.object === name) objects.add(local)
        if (module.serverOnly) serverOnly.add(local)
      }
    }
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement
    if (declared?.type !== 'VariableDeclaration') continue
    for (const { id, init } of declared.declarations) {
      if (id.type === 'Identifier' && init && isLanguageObject(init, rules)) objects.add(id.name)
    }
  }
  return { variables, objects, serverOnly }
}

function importsOf(
  { source, specifiers }: ImportDeclaration,
  { environmentModules = [] }: AccessRules,
): { local: string; name: string; module: EnvironmentModule }[] {
  const module = environmentModules.find((each) => each.module === source.value)
  if (!module) return []
  return specifiers.flatMap((specifier) =>
    specifier.type === 'ImportSpecifier' && specifier.imported.type === 'Identifier'
      ? [{ local: specifier.local.name, name: specifier.imported.name, module }]
      : [],
  )
}

/** The variables that one node reads. */
export function accessesOf(node: SyntaxNode, rules: AccessRules, local: LocalNames): Access[] {
  switch (node.type) {
    case 'Identifier':
      return ofName(node, local)
    case 'ObjectPattern':
      return destructured(node, rules, local)
    case 'MemberExpression':
      return ofMember(node, rules, local)
    default:
      return []
  }
}

function ofName(node: Identifier, local: LocalNames): Access[] {
  const name = local.variables.get(node.name)
  const serverOnly = local.serverOnly.has(node.name)
  if (name !== undefined && isUse(node)) return [{ name, at: node, fromWhole: false, serverOnly }]
  return local.objects.has(node.name) && isHandedOn(node)
    ? [{ name: null, at: node, fromWhole: true, serverOnly }]
    : []
}

function ofMember(node: MemberExpression, rules: AccessRules, local: LocalNames): Access[] {
  const alias =
    node.object.type === 'Identifier' && local.objects.has(node.object.name) ? node.object.name : null
  if (alias !== null || isLanguageObject(node.object, rules)) {
    const name = memberName(node)
    const serverOnly = alias !== null && local.serverOnly.has(alias)
    const fromWhole = alias !== null || name === null
    return name !== null && builtIn.has(name) ? [] : [{ name, at: node, fromWhole, serverOnly }]
  }
  // The object itself, neither read from nor given a name: whoever gets it reads what it likes.
  return isLanguageObject(node, rules) && isHandedOn(node)
    ? [{ name: null, at: node, fromWhole: true, serverOnly: false }]
    : []
}

function destructured(
  node: ObjectPattern,
  rules: AccessRules,
  { objects, serverOnly: server }: LocalNames,
): Access[] {
  const init = node.parent?.type === 'VariableDeclarator' ? node.parent.init : null
  if (!init) return []
  const alias = init.type === 'Identifier' && objects.has(init.name) ? init.name : null
  if (alias === null && !isLanguageObject(init, rules)) return []
  const serverOnly = alias !== null && server.has(alias)
  return node.properties.flatMap((property): Access[] => {
    const name = keyName(property)
    return name === null || builtIn.has(name) ? [] : [{ name, at: property, fromWhole: true, serverOnly }]
  })
}

function isLanguageObject(node: SyntaxNode, { environmentObjects }: AccessRules): boolean {
  const name = dottedName(node)
  return (name === 'import.meta.env' || name === 'process.env') && environmentObjects.includes(name)
}

/** Given to a call or spread, rather than read from, compared or kept under a name. */
function isHandedOn(node: SyntaxNode): boolean {
  const { parent } = node
  if (parent && isCall(parent)) return parent.callee !== node
  // `createEnv({ runtimeEnv: import.meta.env })`; a process that is started gets its `env` on the building machine.
  if (parent?.type === 'Property' && parent.value === node)
    return parent.parent?.type === 'ObjectExpression' && keyName(parent) !== 'env'
  return parent?.type === 'SpreadElement'
}

/** Whether an identifier is read here, not declared or only a name. */
export function isUse(node: Identifier): boolean {
  const { parent } = node
  return !parent || (!/^(?:Import|Export)/.test(parent.type) && isRead(node, parent))
}
