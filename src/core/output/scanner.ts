import { UsageError } from '../model/errors.ts'
import { scannerCode } from './scanner-code.ts'

/** What is used of the engine's own (WebAssembly JavaScript Interface, 5). */
declare const WebAssembly: {
  readonly Module: new (code: Uint8Array) => object
  readonly Instance: new (module: object) => { readonly exports: unknown }
}

/** What the compiled scanner offers; see the folder `scanner`. Addresses and lengths of bytes. */
interface Scanner {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number }
  free(): number
  widen(from: number, size: number, to: number): number
  scan(units: number, length: number, stack: number, notes: number, brackets: number): number
  find(units: number, length: number, table: number, notes: number): number
  readonly isOdd: { readonly value: number }
  readonly moduleAt: { readonly value: number }
}

const pageSize = 65_536
let started: Scanner | null = null
/** Where memory is free behind the tables. */
let free = 0
/** The text that stands there. */
let placed: string | null = null
let room = 0

/** The memory as it was when it last grew. */
let bytes = new Uint8Array()
let units = new Uint16Array()
let numbers = new Int32Array()

/** The program is made when it is first called: most commands read nothing. */
function scanner(): Scanner {
  if (started === null) {
    const code = Uint8Array.from(atob(scannerCode), (letter) => letter.charCodeAt(0))
    started = instanceOf(code).exports as Scanner
    free = started.free()
  }
  return started
}

/** @throws {UsageError} in a page whose policy forbids it (Content Security Policy Level 3, 4.5) */
function instanceOf(code: Uint8Array): { readonly exports: unknown } {
  try {
    return new WebAssembly.Instance(new WebAssembly.Module(code))
  } catch (cause) {
    throw new UsageError(
      "Scripts are not read: this page may not run WebAssembly. Add 'wasm-unsafe-eval' to script-src in its policy.",
      { cause },
    )
  }
}

/** What is known of a script as a whole. */
export interface Scanned {
  /** It may be no script: a bracket or a text is not closed, or one is too many. It can be a script all the same. */
  readonly isOdd: boolean
  /** Where the first statement stands that only a module may hold; -1 where there is none. */
  readonly moduleAt: number
  /**
   * Three numbers for every string literal and every fixed part of a template, in order: the bounds of the text between the quotes, and
   * {@link textEnds}, {@link textBegins}, {@link textTells}.
   */
  readonly texts: Int32Array
}

/** The last part of what the quotes enclose; a string is the first and the last. */
export const textEnds = 1
/** The first part of it. */
export const textBegins = 2
/** It holds a point, a slash, an angle bracket or an escape, so that it may name a file or hold a URL. */
export const textTells = 4

/**
 * Goes once over ECMAScript source and reports its strings and template parts, knowing comments and regular expressions. Never
 * throws for what the text holds: what is no valid script is read as far as it makes sense.
 */
export function scan(code: string): Scanned {
  const texts = scanned(code, false)
  const { isOdd, moduleAt } = scanner()
  return { texts, isOdd: isOdd.value === 1, moduleAt: moduleAt.value }
}

/** Two numbers for every round bracket and every brace, in order, those of a template's holes apart: where it stands, and its code. */
export function scanBrackets(code: string): Int32Array {
  return scanned(code, true)
}

function scanned(code: string, brackets: boolean): Int32Array {
  place(code)
  const stack = stackAt()
  const notes = notesAt()
  return noted(notes, scanner().scan(free, code.length, stack, notes, brackets ? 1 : 0))
}

/**
 * Two numbers for each word of a table that stands in a text, letters of both cases being the same: which, and where.
 * @param table as `scanner/words.ts` says, where {@link keep} put it
 */
export function find(text: string, table: number): Int32Array {
  place(text)
  const notes = notesAt()
  return noted(notes, scanner().find(free, text.length, table, notes))
}

/**
 * Has a text ready for what goes over it. Without a call it is made ready from the text, which takes longer.
 * @param source what the text was decoded from, most likely
 * @throws {RangeError} when there is no memory for it
 */
export function place(text: string, source?: Uint8Array): void {
  if (placed === text) return
  // What is free is known once it has started.
  scanner()
  placed = null
  room = Math.max(text.length, source?.length ?? 0)
  if (source !== undefined) {
    reserve(notesAt() + source.length)
    bytes.set(source, notesAt())
    // What is of another encoding has another length, or is no UTF-8 at all.
    if (scanner().widen(notesAt(), source.length, free) === text.length) placed = text
  }
  if (placed === null) (text.length > longestCopied ? placeEncoded : placeCopied)(text)
  placed = text
}

/** A call of the encoder costs as much as to copy so many letters. */
const longestCopied = 4_000

function placeCopied(text: string): void {
  reserve(notesAt())
  const at = free >> 1
  for (let i = 0; i < text.length; i++) units[at + i] = text.charCodeAt(i)
  units.fill(0, at + text.length, at + text.length + 4)
}

const encoder = new TextEncoder()

function placeEncoded(text: string): void {
  const from = notesAt()
  reserve(from + text.length * 3)
  const { written } = encoder.encodeInto(text, bytes.subarray(from))
  scanner().widen(from, written, free)
}

/** Behind the units of the text, and as many zeros as anything looks ahead. */
function stackAt(): number {
  return aligned(free + room * 2 + 32)
}

function notesAt(): number {
  return aligned(stackAt() + room + 32)
}

function aligned(address: number): number {
  return (address + 15) & ~15
}

/** @throws {RangeError} when there is no such memory */
function reserve(end: number): void {
  const { memory } = scanner()
  const missing = end - memory.buffer.byteLength
  if (missing > 0) memory.grow(Math.ceil(missing / pageSize))
  look()
}

/** Looks at the memory anew where it has grown. */
function look(): void {
  const { buffer } = scanner().memory
  if (bytes.buffer === buffer) return
  bytes = new Uint8Array(buffer)
  units = new Uint16Array(buffer)
  numbers = new Int32Array(buffer)
}

const nothing = new Int32Array()

function noted(from: number, end: number): Int32Array {
  if (end === from) return nothing
  look()
  return numbers.slice(from >> 2, end >> 2)
}

/** Keeps bytes for good, so that the scanner can look into them. @returns their address */
export function keep(kept: Uint8Array): number {
  scanner()
  const address = aligned(free)
  free = aligned(address + kept.length)
  reserve(free)
  bytes.set(kept, address)
  placed = null
  return address
}
