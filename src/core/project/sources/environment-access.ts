import type * as t from '@babel/types'

/** Where the sources of a framework read variables. */
export interface AccessRules {
  /** Objects of the language: `import.meta.env`, `process.env`. */
  readonly environmentObjects: readonly string[]
  /** Modules that export variables. */
  readonly environmentModules?: readonly EnvironmentModule[]
}

/** A module of a framework's that holds variables: each an export of its own (`names`), or all in one object of this name. */
export interface EnvironmentModule {
  readonly module: string
  readonly exports: 'names' | { readonly object: string }
  /** Only for code that never reaches a browser. */
  readonly serverOnly?: true
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
  readonly at: t.Node
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
export function localNames(body: readonly t.Statement[], rules: AccessRules): LocalNames {
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
  { source, specifiers }: t.ImportDeclaration,
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
export function accessesOf(
  node: t.Node,
  parents: readonly t.Node[],
  rules: AccessRules,
  local: LocalNames,
): Access[] {
  const parent = parents.at(-1)
  if (node.type === 'Identifier') {
    const name = local.variables.get(node.name)
    const serverOnly = local.serverOnly.has(node.name)
    if (name !== undefined && isUse(node, parent)) return [{ name, at: node, fromWhole: false, serverOnly }]
    return local.objects.has(node.name) && isHandedOn(parent, node)
      ? [{ name: null, at: node, fromWhole: true, serverOnly }]
      : []
  }
  if (node.type === 'ObjectPattern') return destructured(node, parent, rules, local)
  if (node.type !== 'MemberExpression' && node.type !== 'OptionalMemberExpression') return []
  const alias =
    node.object.type === 'Identifier' && local.objects.has(node.object.name) ? node.object.name : null
  if (alias !== null || isLanguageObject(node.object, rules)) {
    const name = propertyName(node)
    const serverOnly = alias !== null && local.serverOnly.has(alias)
    const fromWhole = alias !== null || name === null
    return name !== null && builtIn.has(name) ? [] : [{ name, at: node, fromWhole, serverOnly }]
  }
  // The object itself, neither read from nor given a name: whoever gets it reads what it likes.
  return isLanguageObject(node, rules) && isHandedOn(parent, node)
    ? [{ name: null, at: node, fromWhole: true, serverOnly: false }]
    : []
}

function destructured(
  node: t.ObjectPattern,
  declarator: t.Node | undefined,
  rules: AccessRules,
  { objects, serverOnly: server }: LocalNames,
): Access[] {
  if (declarator?.type !== 'VariableDeclarator' || !declarator.init) return []
  const { init } = declarator
  const alias = init.type === 'Identifier' && objects.has(init.name) ? init.name : null
  if (alias === null && !isLanguageObject(init, rules)) return []
  const serverOnly = alias !== null && server.has(alias)
  return node.properties.flatMap((property): Access[] => {
    if (property.type !== 'ObjectProperty' || property.key.type !== 'Identifier') return []
    const { name } = property.key
    return builtIn.has(name) ? [] : [{ name, at: property, fromWhole: true, serverOnly }]
  })
}

function isLanguageObject(node: t.Node, { environmentObjects }: AccessRules): boolean {
  if (node.type !== 'MemberExpression' && node.type !== 'OptionalMemberExpression') return false
  if (propertyName(node) !== 'env') return false
  const { object } = node
  if (object.type === 'MetaProperty') return environmentObjects.includes('import.meta.env')
  return (
    object.type === 'Identifier' && object.name === 'process' && environmentObjects.includes('process.env')
  )
}

/** Given to a call or spread, rather than read from, compared or kept under a name. */
function isHandedOn(parent: t.Node | undefined, node: t.Node): boolean {
  if (parent?.type === 'CallExpression') return parent.callee !== node
  return parent?.type === 'SpreadElement'
}

/** Whether an identifier is read here, not declared or only a name. */
export function isUse(node: t.Node, parent: t.Node | undefined): boolean {
  if (!parent) return true
  if (parent.type === 'VariableDeclarator') return parent.init === node
  if (parent.type === 'ObjectProperty') return parent.value === node
  if (parent.type === 'MemberExpression') return parent.object === node || parent.computed
  return !/^(?:Import|Export)|Pattern$/.test(parent.type)
}

function propertyName(node: t.MemberExpression | t.OptionalMemberExpression): string | null {
  if (!node.computed && node.property.type === 'Identifier') return node.property.name
  return node.property.type === 'StringLiteral' ? node.property.value : null
}
