import fc from 'fast-check'
import { expect, test } from 'vitest'
import { changedLists, readerLanguages, readerPageHtml, toldIn, typedValue, valueAsTyped } from '.'
import type { Field, FieldKind, FieldValue } from '../people'

const told = toldIn(readerLanguages.en, 'en', 'Europe/London')
const hostile = `"><script>alert(1)</script>' onfocus=x {sender} {{ x }} &amp;`

test('whatever names, lists, fields and values are, they stand on the page as text alone', () => {
  const kinds: FieldKind[] = ['text', 'choice', 'choices', 'link', 'yesno', 'date', 'number']
  const html = readerPageHtml(
    {
      sender: hostile,
      address: hostile,
      suppressed: true,
      lists: [
        { id: 1, name: hostile, about: hostile, often: hostile, state: 'subscribed', since: 0 },
        { id: 2, name: hostile, about: '', often: '', state: null, since: null },
      ],
      limits: { pausedUntil: 0, oneInDays: 7 },
      fields: kinds.map((kind) => ({
        field: { key: kind, name: hostile, kind },
        value: kind === 'choices' ? [hostile] : kind === 'yesno' ? true : hostile,
      })),
    },
    told,
    { kind: 'fault', words: hostile },
    { address: hostile, 'value.text': hostile },
  )
  expect(html).not.toContain('<script')
  // What is left of the tags without their attributes' values: nothing of theirs.
  const tags = html.match(/<[a-z][^>]*>/g)!.map((tag) => tag.replace(/="[^"]*"/g, ''))
  expect(tags.join('')).not.toMatch(/onfocus|sender|&/)
  expect(html).toContain('{sender}')
  expect(html.match(/<section>/g)).toHaveLength(7)
})

test('only what a reader changed of what they were shown is changed', () => {
  const id = fc.integer({ min: 1, max: 9 })
  fc.assert(
    fc.property(fc.uniqueArray(id), fc.uniqueArray(id), fc.uniqueArray(id), (on, was, rest) => {
      const not = rest.filter((id) => !was.includes(id))
      const form = new URLSearchParams([
        ...on.map((id) => ['on', String(id)]),
        ...was.map((id) => ['was', String(id)]),
        ...not.map((id) => ['not', String(id)]),
      ])
      const { join, leave } = changedLists(form)
      expect(join.every((id) => on.includes(id) && not.includes(id))).toBe(true)
      expect(leave.every((id) => !on.includes(id) && was.includes(id))).toBe(true)
      const untouched = changedLists(
        new URLSearchParams([
          ...was.flatMap((id) => [
            ['on', String(id)],
            ['was', String(id)],
          ]),
          ...not.map((id) => ['not', String(id)]),
        ]),
      )
      expect(untouched).toEqual({ join: [], leave: [] })
    }),
  )
  expect(changedLists(new URLSearchParams('on=x&was=&not=x'))).toEqual({
    ...{ join: [NaN], leave: [0] },
  })
})

test('a value that is left as it was written is the same value again', () => {
  const word = fc.stringMatching(/^[a-zæø]{1,9}( [a-z]{1,9})?$/)
  const values: Record<FieldKind, fc.Arbitrary<FieldValue>> = {
    text: word,
    choice: word,
    choices: fc.uniqueArray(word, { minLength: 1, maxLength: 4 }),
    link: fc.webUrl(),
    number: fc.double({ noNaN: true, noDefaultInfinity: true }),
    yesno: fc.boolean(),
    date: fc.constantFrom('2026-02-28', '1999-12-31'),
  }
  for (const [kind, value] of Object.entries(values) as [FieldKind, fc.Arbitrary<FieldValue>][])
    fc.assert(
      fc.property(value, (value) => {
        const field: Field = { key: 'x', name: 'X', kind }
        const read = typedValue(field, valueAsTyped(value))
        if (kind === 'choices') expect((read as string[]).map((one) => one.trim())).toEqual(value)
        else expect(read === 0 ? 0 : read).toEqual(value === 0 ? 0 : value)
      }),
    )
  for (const kind of Object.keys(values) as FieldKind[])
    expect(typedValue({ kind }, '  ')).toBeNull()
})
