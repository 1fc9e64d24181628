import { expect, test } from 'vitest'
import { readerLanguages, toldIn } from '../readers'
import { drawn, guideBox, someForm, windBox } from './made-up'
import { formHtml, saidHtml } from './html'
import { formStyle } from './style'

const nasty = `"><script>alert(1)</script><img src=x onerror=alert(2)>'`

test('nothing is ticked or filled in beforehand; what was written and not taken stays', () => {
  const form = someForm([guideBox, windBox])
  expect(formHtml(drawn(form))).not.toMatch(/checked|value="tove/)
  const again = formHtml(
    drawn(form, {
      typed: { 'f.address': ['tove@inkpost'], 't.wind': ['yes'] },
      faults: { address: 'address' },
    }),
  )
  expect(again).toContain('value="tove@inkpost"')
  expect(again).toMatch(/name="t\.wind" value="yes" checked/)
  expect(again).not.toMatch(/name="t\.guide" value="yes" checked/)
  expect(again).toMatch(/name="f\.address"[^>]* aria-invalid="true" aria-describedby="w-address"/)
})

test('hostile text in every part, language, value and source runs nothing', () => {
  const words = { en: nasty }
  const form = someForm(
    [
      { id: 'h', kind: 'heading', text: words },
      { id: 't', kind: 'text', text: words },
      { id: 'p', kind: 'picture', src: '/p/a.png', alt: words },
      { id: 'c', kind: 'consent', text: words, lists: [1] },
      {
        ...{ id: 'f', kind: 'field', field: 'town', label: words, help: words },
        ...{ placeholder: words, choices: [nasty] },
      },
      { id: 'n', kind: 'field', field: 'first_name', placeholder: words },
      { id: 'b', kind: 'button', label: words },
      { id: 's', kind: 'small', text: words },
      { id: 'u', kind: 'hidden', param: 'utm_source' },
    ],
    { thanks: { title: words, text: words } },
  )
  const drawing = drawn(form, {
    ...{ action: nasty, token: nasty, meant: nasty },
    sender: { name: nasty, postalAddress: nasty },
    typed: { 'f.n': [nasty], 'f.address': [nasty], 'h.utm_source': [nasty] },
  })
  const html = formHtml(drawing) + saidHtml(form.thanks, drawing)
  expect(html).not.toMatch(/<script|<img src=x/)
  // Every attribute ends where ours do: no quotation mark of theirs is left as one.
  expect(html.split(nasty)).toHaveLength(1)
})

test('a text that a language lacks is that of the first; Satchel’s own words are in the reader’s', () => {
  const form = someForm([windBox, { id: 'x', kind: 'field', field: 'first_name' }], {
    languages: ['en', 'de'],
  })
  const html = formHtml(
    drawn(form, { language: 'de', told: toldIn(readerLanguages.de, 'de', 'UTC') }),
  )
  expect(html).toContain('lang="de"')
  expect(html).toContain('Wind notes.')
  expect(html).toContain('Vorname <small>· kann leer bleiben</small>')
  expect(html).toContain('E-Mail-Adresse')
})

test('an address that may be a slip is asked about with two buttons that say which', () => {
  const html = formHtml(
    drawn(someForm([windBox]), {
      meant: 'tove@inkpost.example',
      typed: { 'f.address': ['tove@inkpots.example'] },
    }),
  )
  expect(html).toContain('Did you mean tove@inkpost.example?')
  expect(html).toContain('<button name="meant" value="tove@inkpost.example">')
  expect(html).toContain('<button name="sure" value="tove@inkpots.example">')
})

test('the style touches nothing outside the form', () => {
  const style = formStyle(drawn(someForm([])).look)
  const selectors = style
    .replace(/@media\([^)]*\)\{/g, '')
    .split('}')
    .flatMap((rule) => rule.split('{')[0]!.split(','))
    .map((selector) => selector.trim())
    .filter(Boolean)
  for (const selector of selectors) expect(selector).toMatch(/^\.sup/)
})

test('a picture has its room before it is there, where its shape is known', () => {
  const form = someForm([{ id: 'p', kind: 'picture', src: '/p/a.png' }])
  expect(formHtml(drawn(form, { shapes: { '/p/a.png': 0.5 } }))).toMatch(
    /<img class="sup-picture"[^>]* width="600" height="300">/,
  )
  expect(formHtml(drawn(form))).toMatch(/<img class="sup-picture"[^>]* width="600">/)
})
