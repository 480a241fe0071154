import { parse } from '@babel/parser'
import type * as t from '@babel/types'
import { directoryOf, type Folder, joinPath } from '../../model/folder.ts'
import { readText } from '../../model/text.ts'

/** A parsed module of the project, never run. */
export interface Module {
  readonly file: string
  readonly text: string
  readonly body: readonly t.Statement[]
  /** The file each relative import leads to. */
  readonly imports: ReadonlyMap<string, string>
  /** The package each local name is imported from. */
  readonly packages: ReadonlyMap<string, string>
}

/** A module could not be parsed. The message says where. */
export class SyntaxProblem extends Error {
  override readonly name = 'SyntaxProblem'
}

const endings = ['', '.ts', '.mts', '.cts', '.js', '.mjs', '.cjs', '.json', '/index.ts', '/index.js']

/** Configuration that imports more files than this is not followed further. */
const mostModules = 40

/**
 * Parses TypeScript, JavaScript and JSX of any age. Errors that leave a tree are passed over, unless it must be sound.
 * @throws {SyntaxProblem} when there is no tree, or it must be sound and is not
 */
export function parseModule(file: string, text: string, mustBeSound = false): t.Statement[] {
  try {
    return parse(text, {
      sourceType: 'unambiguous',
      errorRecovery: !mustBeSound,
      allowReturnOutsideFunction: true,
      attachComment: false,
      plugins: [
        /\.[mc]?ts$/.test(file) ? 'typescript' : 'jsx',
        ...(/\.tsx$/.test(file) ? (['typescript'] as const) : []),
      ],
    }).program.body
  } catch (error) {
    throw new SyntaxProblem(
      `${file} could not be parsed: ${error instanceof Error ? error.message : 'unknown'}.`,
    )
  }
}

/** Reads a module and what it imports from the project by relative paths. */
export async function loadModules(folder: Folder, entry: string): Promise<ReadonlyMap<string, Module>> {
  const modules = new Map<string, Module>()
  const waiting = [entry]
  for (let file = waiting.pop(); file !== undefined && modules.size < mostModules; file = waiting.pop()) {
    if (modules.has(file)) continue
    const text = await readText(folder, file)
    if (text === null) continue
    const body = parseModule(file, file.endsWith('.json') ? `export default ${text}` : text)
    const imports = new Map<string, string>()
    for (const specifier of relativeSpecifiers(body)) {
      const target = await resolve(folder, directoryOf(file), specifier)
      if (target === null) continue
      imports.set(specifier, target)
      waiting.push(target)
    }
    modules.set(file, { file, text, body, imports, packages: packageNames(body) })
  }
  return modules
}

function relativeSpecifiers(body: readonly t.Statement[]): string[] {
  return body
    .flatMap((statement) => {
      if (statement.type === 'ImportDeclaration') return statement.source.value
      if (statement.type === 'ExportNamedDeclaration' && statement.source) return statement.source.value
      if (statement.type !== 'VariableDeclaration') return []
      return statement.declarations.flatMap(({ init }) => {
        const argument = init?.type === 'CallExpression' && isRequire(init.callee) ? init.arguments[0] : null
        return argument?.type === 'StringLiteral' ? argument.value : []
      })
    })
    .filter((specifier) => specifier.startsWith('.'))
}

function packageNames(body: readonly t.Statement[]): Map<string, string> {
  const found = new Map<string, string>()
  for (const statement of body) {
    if (statement.type === 'ImportDeclaration') {
      for (const { local } of statement.specifiers) found.set(local.name, statement.source.value)
    } else if (statement.type === 'VariableDeclaration') {
      for (const { id, init } of statement.declarations) {
        const argument = init?.type === 'CallExpression' && isRequire(init.callee) ? init.arguments[0] : null
        if (id.type === 'Identifier' && argument?.type === 'StringLiteral') found.set(id.name, argument.value)
      }
    }
  }
  return found
}

/** Whether a callee is the CommonJS `require`. */
export function isRequire(callee: t.Node): boolean {
  return callee.type === 'Identifier' && callee.name === 'require'
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
