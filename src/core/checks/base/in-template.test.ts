import { describe, expect, test } from 'vitest'
import { applied, isPlaced } from '../../edits/edit.ts'
import { placeEdits } from '../../edits/place-edits.ts'
import { correctInTemplate, readOf } from './in-template.ts'

const url = '/ferry.svg'
const read = 'import.meta.env.BASE_URL'
const declared = `const baseUrl = ${read}`

async function corrected(text: string, file = 'A.vue'): Promise<string | null> {
  const offset = text.indexOf(url)
  const before = text.slice(0, offset)
  const line = before.split('\n').length
  const at = { file, line, column: offset - before.lastIndexOf('\n'), offset, excerpt: '' }
  const found = correctInTemplate(text, at, url, read)
  if (!found || found.edits.length === 0) return null
  const edits = await placeEdits(found.edits, async () => text)
  return edits.every(isPlaced) ? applied(text, edits) : null
}

describe('a URL in the template of a Vue component gets the base path', () => {
  test.each<[string, string, string]>([
    [
      'in a bound attribute',
      `<script setup>\nlet a\n</script>\n<template><img :src="a ? '/ferry.svg' : b"></template>`,
      `<script setup>\n${declared}\nlet a\n</script>\n<template><img :src="a ? (baseUrl + 'ferry.svg') : b"></template>`,
    ],
    [
      'in an attribute of a component',
      `<script setup lang="ts">let a</script>\n<template><Boat picture="/ferry.svg" /></template>`,
      `<script setup lang="ts">\n${declared}\nlet a</script>\n<template><Boat :picture="baseUrl + 'ferry.svg'" /></template>`,
    ],
    [
      'behind the beginning of a text',
      `<script setup>\n</script>\n<template><p :style="{ background: 'url(/ferry.svg)' }" /></template>`,
      `<script setup>\n${declared}\n</script>\n<template><p :style="{ background: 'url(' + baseUrl + 'ferry.svg)' }" /></template>`,
    ],
    [
      'by a name that the script has',
      `<script setup>\nconst home = ${read}\n</script>\n<template>{{ '/ferry.svg' }}</template>`,
      `<script setup>\nconst home = ${read}\n</script>\n<template>{{ (home + 'ferry.svg') }}</template>`,
    ],
    [
      'by a name of its own',
      `<script setup>\nlet baseUrl\n</script>\n<template>{{ '/ferry.svg' }}</template>`,
      `<script setup>\nconst siteBase = ${read}\nlet baseUrl\n</script>\n<template>{{ (siteBase + 'ferry.svg') }}</template>`,
    ],
    [
      'without a script',
      `<template>{{ '/ferry.svg' }}</template>`,
      `<script setup>\n${declared}\n</script>\n\n<template>{{ (baseUrl + 'ferry.svg') }}</template>`,
    ],
    [
      'beside a script of another kind',
      `<script lang="ts">\nexport default {}\n</script>\n<template>{{ '/ferry.svg' }}</template>`,
      `<script setup lang="ts">\n${declared}\n</script>\n\n<script lang="ts">\nexport default {}\n</script>\n<template>{{ (baseUrl + 'ferry.svg') }}</template>`,
    ],
  ])('%s', async (_, text, expected) => {
    expect(await corrected(text)).toBe(expected)
  })

  test.each([
    [
      'a component that sets itself up',
      `<script>\nexport default { setup() {} }\n</script><template>{{ '/ferry.svg' }}</template>`,
    ],
    [
      'a text in an attribute',
      `<script setup></script><template><p style="background: url('/ferry.svg')" /></template>`,
    ],
    [
      'several texts in one',
      `<script setup></script><template><p :class="a('it\\'s /ferry.svg')" /></template>`,
    ],
  ])('but not in %s, where a person is told', async (_, text) => {
    expect(await corrected(text)).toBeNull()
    const at = { file: 'A.vue', line: 1, column: 1, offset: text.indexOf(url), excerpt: '' }
    expect(correctInTemplate(text, at, url, read)?.steps).toHaveLength(1)
  })

  test('and code elsewhere is left to what gives it there', async () => {
    expect(await corrected(`<script setup>let a = '/ferry.svg'</script>`)).toBeNull()
    expect(await corrected(`<p>{'/ferry.svg'}</p>`, 'A.svelte')).toBeNull()
  })

  test('what is read is in a template literal', () => {
    expect(readOf('`${process.env.BASE_URL}`')).toBe('process.env.BASE_URL')
    expect(readOf("withBase('/')")).toBeNull()
  })
})
