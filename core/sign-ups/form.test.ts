import fc from 'fast-check'
import { expect, test } from 'vitest'
import { consentsOf, joinedBy, purposesOf } from './consent'
import { readForm, siteOf } from './read-form'
import { guideBox, someForm, windBox } from './made-up'
import { partsOf } from './form'

test('a form asks for the address once and has one button, whatever came in', () => {
  const form = someForm([
    { id: 'a', kind: 'field', field: 'address', required: false },
    { id: 'b', kind: 'field', field: 'address' },
    { id: 'a', kind: 'text', text: { en: 'The same id again' } },
    { id: 'c', kind: 'button', label: { en: 'Send' }, lists: [1] },
    { id: 'd', kind: 'button', label: { en: 'Send again' } },
  ])
  expect(form.parts.map(({ id }) => id)).toEqual(['a', 'c'])
  expect(partsOf(form, 'field')).toMatchObject([{ field: 'address', required: true }])
  expect(someForm([]).parts.map(({ kind }) => kind)).toEqual(['field', 'button'])
})

test('what can’t be a form is none; what is read once is read the same again', () => {
  for (const none of [null, 7, {}, { kind: 'else' }, { kind: 'hosted', languages: [], parts: [] }])
    expect(readForm(none)).toBeNull()
  fc.assert(
    fc.property(
      fc.record({
        kind: fc.constantFrom('hosted', 'in-page', 'pop-over'),
        languages: fc.constant(['de', 'en', 'xx']),
        parts: fc.array(
          fc.record({
            id: fc.string(),
            kind: fc.constantFrom('text', 'field', 'consent', 'hidden', 'picture', 'else'),
            text: fc.oneof(fc.string(), fc.dictionary(fc.constantFrom('en', 'de'), fc.string())),
            field: fc.anything(),
            lists: fc.anything(),
            choices: fc.anything(),
            param: fc.anything(),
            src: fc.anything(),
          }),
        ),
        look: fc.anything(),
        privacy: fc.anything(),
        sites: fc.anything(),
        promised: fc.anything(),
        placement: fc.oneof(
          fc.anything(),
          fc.record({ afterSeconds: fc.anything(), only: fc.anything() }),
        ),
      }),
      (given) => {
        const form = readForm(given)!
        expect(form.languages).toEqual(['de', 'en'])
        expect(readForm(JSON.parse(JSON.stringify(form)))).toEqual(form)
      },
    ),
  )
})

test('addresses that run something, and pictures from elsewhere, are dropped', () => {
  const form = someForm(
    [
      { id: 'p', kind: 'picture', src: 'https://elsewhere.example/x.png' },
      { id: 'q', kind: 'picture', src: '/p/abc.png' },
    ],
    { privacy: 'javascript:alert(1)', promised: { url: 'https://k.example/guide.pdf' } },
  )
  expect(partsOf(form, 'picture').map(({ src }) => src)).toEqual(['', '/p/abc.png'])
  expect(form.privacy).toBe('')
  expect(form.promised.url).toBe('https://k.example/guide.pdf')
})

test('a site is an origin, over https but on this machine', () => {
  expect(siteOf('galewright.example')).toBe('https://galewright.example')
  expect(siteOf('https://shop.galewright.example:8443/path?q')).toBe(
    'https://shop.galewright.example:8443',
  )
  expect(siteOf('http://localhost:3000')).toBe('http://localhost:3000')
  for (const none of ['http://galewright.example', 'not a site', 'kites', 'https://a:b@k.example'])
    expect(siteOf(none)).toBeNull()
})

test('no list is joined without a box that was ticked, and no act is without its words', () => {
  const form = someForm([guideBox, windBox])
  expect(consentsOf(form, [], 'en')).toEqual([])
  expect(joinedBy(consentsOf(form, ['guide'], 'en'))).toEqual([])
  expect(joinedBy(consentsOf(form, ['wind'], 'en'))).toEqual([
    { listId: 1, wording: 'Wind notes.' },
  ])
  const box = fc.record({
    lists: fc.subarray([1, 2, 3]),
    text: fc.constantFrom({}, { en: 'Yes.' }, { de: 'Ja.' }, { en: ' ' }),
    oneMail: fc.boolean(),
  })
  fc.assert(
    fc.property(
      fc.array(box, { maxLength: 4 }),
      fc.subarray(['b0', 'b1', 'b2', 'b3', 'send']),
      (boxes, ticked) => {
        const form = someForm(
          [
            ...boxes.map((box, i) => ({ ...box, id: `b${i}`, kind: 'consent' })),
            { id: 'send', kind: 'button', label: { en: 'Send me all' }, lists: [9] },
          ],
          { languages: ['en', 'de'] },
        )
        const consents = consentsOf(form, ticked, 'de')
        for (const { wording, partId } of consents) {
          expect(wording).not.toBe('')
          if (boxes.length > 0) expect(ticked).toContain(partId)
        }
        // A button agrees to something only where there is no box.
        const joined = joinedBy(consents).map(({ listId }) => listId)
        if (boxes.length > 0) expect(joined).not.toContain(9)
        else expect(joined).toEqual([9])
        expect(purposesOf(form)).not.toHaveLength(0)
      },
    ),
  )
})
