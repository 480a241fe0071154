import { AnyMap, originalPositionFor, sourceContentFor, type TraceMap } from '@jridgewell/trace-mapping'
import { directoryOf, type Folder, joinPath } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import { type Position, readText, safeDecode } from '../model/text.ts'

/** A place in the sources, with the source's text when the map brings it along. */
export interface MappedPlace extends Place {
  readonly text: string | null
}

/** Finds the source of a place in one built file. */
export type MapLookup = (position: Position) => MappedPlace | null

/** A larger map costs more to read than its places are worth. */
const largest = 64_000_000

/** What came of looking for the map of a file: how to trace, or why that can't be done though the file names a map. */
export interface FoundMap {
  readonly trace: MapLookup | null
  readonly problem: string | null
}

/** Nothing to trace with, and nothing wrong with that. */
export const noMap: FoundMap = { trace: null, problem: null }

/**
 * The source map of a built file (ECMA-426), plain or indexed, from beside it or from within it.
 * @param text the built file, to see which map it names
 */
export async function sourceMapOf(build: Folder, file: string, text: string): Promise<FoundMap> {
  const named = /[#@]\s{0,9}sourceMappingURL=(\S+)\s*(?:\*\/\s*)?$/.exec(text.slice(-4_096))?.[1]
  const data = /^data:application\/json;(?:charset=[\w-]+;)?base64,(.+)$/.exec(named ?? '')?.[1]
  if (data !== undefined) return mapFrom(fromBase64(data) ?? '', file, true)
  const beside =
    named && !/^[a-z]+:/i.test(named) ? joinPath(directoryOf(file), safeDecode(named)) : `${file}.map`
  const stat = await build.stat(beside)
  if (stat === null) {
    return named ? { trace: null, problem: 'names a source map that is not there' } : noMap
  }
  if (stat.size > largest) return { trace: null, problem: 'has a source map that is too large to read' }
  return mapFrom((await readText(build, beside, largest)) ?? '', file, named !== undefined)
}

function mapFrom(json: string, file: string, named: boolean): FoundMap {
  try {
    const map = new AnyMap(json.replace(/^\)\]\}'[^\n]*\n/, ''))
    return { trace: (position) => trace(map, file, position), problem: null }
  } catch {
    return named ? { trace: null, problem: 'has a source map that is broken' } : noMap
  }
}

function trace(map: TraceMap, file: string, { line, column }: Position): MappedPlace | null {
  const found = originalPositionFor(map, { line, column: column - 1 })
  if (found.source === null || /^(?:\0|webpack\/|vite\/|\(|node_modules\/\.vite)/.test(found.source))
    return null
  return {
    file: sourcePath(found.source, file),
    line: found.line,
    column: found.column + 1,
    text: sourceContentFor(map, found.source),
  }
}

/**
 * The path from the project. Bundlers write it from the map's own place, or behind a scheme of theirs; what climbs above
 * the build folder lands in the project.
 */
function sourcePath(source: string, file: string): string {
  const plain = source
    .replace(/^(?:webpack|turbopack|parcel|ng|vite):\/\/(?:[^/]*\/)?/, '')
    .replace(/\?\w*$/, '')
  if (plain !== source) return joinPath(plain.replace(/^\[project\]\//, ''))
  return joinPath(plain.startsWith('.') ? `${directoryOf(file)}/${plain}` : plain)
}

function fromBase64(data: string): string | null {
  try {
    return new TextDecoder().decode(Uint8Array.from(atob(data), (character) => character.charCodeAt(0)))
  } catch {
    return null
  }
}
