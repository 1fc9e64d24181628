import { test, expect } from 'vitest'
import fc from 'fast-check'
import { checkAddress } from './address'
import { addressCautions, nearestDomain } from './doubtful'

test.each([
  [' Tamsin1@HARBOURMAIL.example ', 'tamsin1@harbourmail.example'],
  ['tove@bücher.example', 'tove@xn--bcher-kva.example'],
  ["o'hallow+kites@oldmill.example", "o'hallow+kites@oldmill.example"],
])('%s is taken as %s', (typed, normal) => {
  expect(checkAddress(typed)).toMatchObject({ ok: true, normal, address: typed.trim() })
})

test.each([
  ['', 'empty'],
  ['not an address', 'no-at'],
  ['two@@harbourmail.example', 'many-at'],
  ['@harbourmail.example', 'local-empty'],
  ['a'.repeat(70) + '@inkpost.example', 'local-long'],
  ['josé@inkpost.example', 'local-ascii'],
  ['a b@inkpost.example', 'local-form'],
  ['.dot@inkpost.example', 'local-form'],
  ['a@nodot', 'domain'],
  ['a@1.2.3.4', 'domain'],
  ['a@evil.example/path', 'domain'],
  ['a@b.example\r\nBcc: x', 'domain'],
  ['a'.repeat(60) + '@' + 'long-name-of-a-label.'.repeat(9) + 'inkpost.example', 'long'],
])('%j is refused: %s', (typed, problem) => {
  expect(checkAddress(typed)).toEqual({ ok: false, problem })
})

test('a normal form is its own normal form, and holds nothing that could break a header', () => {
  fc.assert(
    fc.property(fc.oneof(fc.emailAddress(), fc.string({ unit: 'grapheme' })), (typed) => {
      const checked = checkAddress(typed)
      if (!checked.ok) return
      expect(checked.normal).toMatch(/^[\x21-\x7e]+$/)
      expect(checkAddress(checked.normal)).toMatchObject({ ok: true, normal: checked.normal })
    }),
  )
})

test('a slip in a domain is told, a known or distant one is not', () => {
  const known = new Set(['harbourmail.example', 'inkpost.example'])
  expect(nearestDomain('harbourmial.example', known)).toBe('harbourmail.example')
  expect(nearestDomain('inkpost.example', known)).toBeNull()
  expect(nearestDomain('galewright.example', known)).toBeNull()
  expect(addressCautions('info@inkpots.example', known)).toEqual([
    'Is inkpots.example a slip for inkpost.example?',
    'info@ is a role, not a person.',
  ])
})
