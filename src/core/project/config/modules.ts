import type { ImportDeclaration, Program, VariableDeclaration } from 'acorn'
import { directoryOf, type Folder, joinPath } from '../../model/folder.ts'
import { readText } from '../../model/text.ts'
import type { Code } from '../../syntax/fold.ts'
import { isCall, textOf } from '../../syntax/node.ts'
import { parseSource } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { linked, type Tree } from '../../syntax/tree.ts'

/** A parsed module of the project, never run. */
export interface Module extends Code {
  readonly file: string
  readonly tree: Tree<Program>
  /** The file each relative import leads to. */
  readonly imports: ReadonlyMap<string, string>
  /** The package each local name is imported from. */
  readonly packages: ReadonlyMap<string, string>
}

const endings = ['', '.ts', '.mts', '.cts', '.js', '.mjs', '.cjs', '.json', '/index.ts', '/index.js']

/** Configuration that imports more files than this is not followed further. */
const mostModules = 40

/** Reads a module and what it imports from the project by relative paths. @throws {SyntaxProblem} */
export async function loadModules(folder: Folder, entry: string): Promise<ReadonlyMap<string, Module>> {
  const modules = new Map<string, Module>()
  const waiting = [entry]
  for (let file = waiting.pop(); file !== undefined && modules.size < mostModules; file = waiting.pop()) {
    if (modules.has(file)) continue
    const text = await readText(folder, file)
    if (text === null) continue
    const tree = linked(parseSource(file, file.endsWith('.json') ? `export default ${text}` : text))
    const given = importsOf(tree.root)
    const imports = new Map<string, string>()
    for (const { specifier } of given) {
      const target = specifier.startsWith('.') ? await resolve(folder, directoryOf(file), specifier) : null
      if (target === null) continue
      imports.set(specifier, target)
      waiting.push(target)
    }
    const packages = new Map(given.flatMap(({ names, specifier }) => names.map((name) => [name, specifier])))
    modules.set(file, { file, text, tree, imports, packages, placeOf: placeIn(file) })
  }
  return modules
}

interface Import {
  readonly specifier: string
  readonly names: readonly string[]
}

/** What a module imports, with `import`, `export … from` and `require`. */
function importsOf({ body }: Program): Import[] {
  return body.flatMap((statement): Import[] => {
    if (statement.type === 'ImportDeclaration') return [imported(statement)]
    if (statement.type === 'ExportNamedDeclaration' && statement.source)
      return [{ specifier: String(statement.source.value), names: [] }]
    return statement.type === 'VariableDeclaration' ? required(statement) : []
  })
}

function imported({ source, specifiers }: ImportDeclaration): Import {
  return { specifier: String(source.value), names: specifiers.map(({ local }) => local.name) }
}

function required({ declarations }: VariableDeclaration): Import[] {
  return declarations.flatMap(({ id, init }) => {
    const isRequire =
      init && isCall(init) && init.callee.type === 'Identifier' && init.callee.name === 'require'
    const specifier = isRequire ? textOf(init.arguments[0]) : null
    return specifier === null ? [] : [{ specifier, names: id.type === 'Identifier' ? [id.name] : [] }]
  })
}

async function resolve(folder: Folder, from: string, specifier: string): Promise<string | null> {
  const base = joinPath(from, specifier)
  const candidates = [base, ...endings.slice(1).map((ending) => base + ending)]
  // TypeScript imports may name the file they will become.
  if (/\.m?js$/.test(base)) candidates.push(base.replace(/js$/, 'ts'))
  for (const path of candidates) {
    if ((await folder.stat(path)) !== null) return path
  }
  return null
}
