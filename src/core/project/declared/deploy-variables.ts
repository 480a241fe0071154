import type { Place } from '../../model/reading.ts'
import type { Folded } from '../../syntax/value.ts'
import type { HandedValue } from '../config/evaluate.ts'
import type { EnvironmentFile } from '../environment-files.ts'
import { containerVariables } from './container-files.ts'
import type { DeployFiles } from './deploy-files.ts'
import { visitData } from './visit-data.ts'

/** Keys whose object or list gives variables to what is run. */
const mapKey = /^(?:env|environment|environments?[-_]variables|variables|vars|build[-_]?(?:env|args)|args)$/i

/** A variable as people name one, and one with its value in a single text. */
const variable = /^[A-Z][A-Z0-9_]*$/
const assignment = /^([A-Z][A-Z0-9_]*)=(.*)$/s

/** A value that is written as it is: no expression of a pipeline, no other variable. */
const plain = /^[^$<>{}]*$/

/** A variable that a file hands to a build; the value is null where it is not written in the file. */
interface Handed {
  readonly name: string
  readonly value: string | null
  readonly at: Place
}

/** Names of variables that pipeline, deploy and container files hand to a build. */
export function deployVariables(files: DeployFiles): EnvironmentFile[] {
  return handedIn(files).flatMap(([file, handed]) => {
    const names = new Map<string, Place>()
    for (const { name, at } of handed) if (!names.has(name)) names.set(name, at)
    return names.size > 0 ? [{ file, names }] : []
  })
}

/** The values that such files give plainly, and all alike: a variable with two values is one of several environments. */
export function plainVariables(files: DeployFiles): Map<string, HandedValue> {
  const all = new Map<string, Handed[]>()
  for (const [, handed] of handedIn(files))
    for (const one of handed) all.set(one.name, [...(all.get(one.name) ?? []), one])
  const found = new Map<string, HandedValue>()
  for (const [name, [first, ...others]] of all) {
    if (first?.value == null || !plain.test(first.value)) continue
    if (others.every(({ value }) => value === first.value))
      found.set(name, { value: first.value, at: first.at })
  }
  return found
}

function handedIn({ data, containers }: DeployFiles): (readonly [string, readonly Handed[]])[] {
  return [
    ...data.map(({ file, value }) => [file, variablesIn(value)] as const),
    ...containers.map((container) => [container.file, containerVariables(container)] as const),
  ]
}

function variablesIn(value: Folded): Handed[] {
  const found: Handed[] = []
  visitData(value, (item, { keys, isItem }) => {
    const key = keys.at(-1) ?? ''
    const one = isItem && mapKey.test(key) ? itemOf(item) : null
    if (one) found.push(one)
    const isVariable = !isItem && mapKey.test(keys.at(-2) ?? '') && variable.test(key)
    if (isVariable) found.push({ name: key, value: textOf(item), at: item.at })
    return !one && !isVariable
  })
  return found
}

/** An item of a list: `NAME=value`, `NAME`, or an object that says the name under `name` or `key`. */
function itemOf(item: Folded): Handed | null {
  const said = item.kind === 'object' ? (item.members.get('name') ?? item.members.get('key')) : item
  if (said?.kind !== 'value' || typeof said.value !== 'string') return null
  const [, assigned, written] = assignment.exec(said.value) ?? []
  const name = assigned ?? said.value
  const beside = item.kind === 'object' ? item.members.get('value') : undefined
  const value = written ?? (beside ? textOf(beside) : null)
  return variable.test(name) ? { name, value, at: said.at } : null
}

function textOf(item: Folded): string | null {
  return item.kind === 'value' && item.value !== null && item.value !== undefined ? String(item.value) : null
}
