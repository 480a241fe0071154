import fc from 'fast-check'
import { expect, test } from 'vitest'
import { kindsByWeight, type Reference } from './reference.ts'
import { PackedReferences, packReferences, Texts, translateReferences } from './reference-list.ts'

const reference = fc
  .record({
    kind: fc.constantFrom(...kindsByWeight),
    raw: fc.string(),
    against: fc.constantFrom('document', 'file', 'bundle-base', 'page', 'site'),
    offset: fc.nat(),
    length: fc.nat(65_536),
    sure: fc.boolean(),
    integrity: fc.option(fc.string({ minLength: 1 }), { nil: undefined }),
  })
  .map(
    ({ sure, integrity, ...rest }): Reference => ({
      ...rest,
      ...(sure ? { sure } : {}),
      ...(integrity === undefined ? {} : { integrity }),
    }),
  )

test('what is packed comes back, from another table too', () => {
  fc.assert(
    fc.property(fc.array(reference), fc.array(fc.string()), (references, others) => {
      const texts = new Texts()
      const numbers = packReferences(references, texts)
      expect([...new PackedReferences(texts, numbers)]).toEqual(references)
      const shared = new Texts(others.filter((text, index) => others.indexOf(text) === index))
      translateReferences(
        numbers,
        Uint32Array.from(texts.all, (text) => shared.idOf(text)),
      )
      const moved = new PackedReferences(shared, numbers)
      expect([...moved]).toEqual(references)
      expect(moved).toHaveLength(references.length)
    }),
  )
})
