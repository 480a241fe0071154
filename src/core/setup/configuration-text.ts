/** What a set-up comes to; what is null or empty is left out. */
export interface Answers {
  readonly site: string | null
  readonly host: string | null
  readonly routes: readonly string[]
  readonly holdOn: readonly string[]
}

/** A file that is to be written. */
export interface NewFile {
  readonly file: string
  readonly text: string
}

/** The schema as an editor finds it in an installed package. */
const schema = './node_modules/wardoscope/schemas/wardoscope-config-1.schema.json'

/** The configuration as JSON, or as a module whose types an editor knows. */
export function configurationFile(answers: Answers, form: 'json' | 'typescript'): NewFile {
  const values = valuesOf(answers)
  if (form === 'json')
    return {
      file: 'wardoscope.config.json',
      text: `${JSON.stringify({ $schema: schema, ...values }, null, 2)}\n`,
    }
  return {
    file: 'wardoscope.config.ts',
    text: `import type { Configuration } from 'wardoscope'\n\nexport default ${literal(values)} satisfies Configuration\n`,
  }
}

function valuesOf({ site, host, routes, holdOn }: Answers): Record<string, string | readonly string[]> {
  return {
    ...(site !== null && { site }),
    ...(host !== null && { host }),
    ...(routes.length > 0 && { routes }),
    ...(holdOn.length > 0 && { holdOn }),
  }
}

/** An object as people write it in code. */
function literal(values: Readonly<Record<string, string | readonly string[]>>): string {
  const lines = Object.entries(values).map(([name, value]) => {
    const items = typeof value === 'string' ? quoted(value) : `[${value.map(quoted).join(', ')}]`
    return `  ${name}: ${items},\n`
  })
  return lines.length === 0 ? '{}' : `{\n${lines.join('')}}`
}

function quoted(text: string): string {
  return `'${text.replace(/[\\']/g, '\\$&').replace(/\n/g, '\\n')}'`
}
