import fc from 'fast-check'
import { beforeAll, expect, test } from 'vitest'
import { templates } from '../templates'
import { compileLetter } from './compile'
import { contrast, inverted, lightness, readColor } from '../color'
import { mergeLetter, personContext } from './merge'
import { asDrawnBy, renderings } from './renderings'
import { madeUpFrame as frame } from './made-up'

const context = personContext(
  { address: 'tove@inkpost.example', values: { first_name: 'Tove' } },
  { list: 'Wind notes', sender: 'Galewright', mailing: 'm' },
)
let letters: { name: string; html: string }[]
beforeAll(async () => {
  letters = await Promise.all(
    templates.map(async ({ name, letter }) => ({
      name,
      html: mergeLetter(await compileLetter(letter, frame), context).html,
    })),
  )
})
/** The words one reads, without tags, comments and style sheets. */
const words = (html: string) =>
  html
    .replace(/<!--.*?-->|<style.*?<\/style>|<title>.*?<\/title>|<[^>]+>/gs, ' ')
    .replace(/&nbsp;|&#\d+;|\s+/g, ' ')
    .trim()

test('every template can be read in every rendering', () => {
  for (const { name, html } of letters)
    for (const { key } of renderings) {
      const drawn = asDrawnBy(key, html)
      for (const word of words(html)
        .split(' ')
        .filter((one) => one.length > 3))
        expect(words(drawn), `${name} as ${key}`).toContain(word)
    }
})

test('without style sheets nothing of them is left, and what stands in the tags is', () => {
  for (const { html } of letters) {
    const drawn = asDrawnBy('stripped', html)
    expect(drawn).not.toMatch(/<style|<link|class=/)
    expect(drawn).toContain('font-size:')
  }
})

test('with pictures off their words stand there, and the counting picture is nowhere', () => {
  const html =
    '<p><img alt="A delta" src="https://x.example/a.png" width="540"><img src="https://x.example/o.gif" width="1" alt=""></p>'
  const drawn = asDrawnBy('pictures-off', html)
  expect(drawn).toContain('>A delta<')
  expect(drawn).toContain('width:540px')
  expect(drawn).not.toContain('<img')
  expect(drawn.match(/<span/g)).toHaveLength(1)
})

test('the old engine reads what is meant for it, and knows no round corners', () => {
  for (const { html } of letters) {
    const drawn = asDrawnBy('old', html)
    expect(drawn).not.toMatch(/border-radius|@media|<!--\[if mso|max-width/)
    expect(drawn.match(/<table/g)!.length).toBeGreaterThan(
      html.replace(/<!--.*?-->/gs, '').match(/<table/g)!.length,
    )
  }
})

test('in the dark, dark on light becomes light on dark; what was dark already stays only in one kind', () => {
  const html =
    '<html><head></head><body><div style="background:#ffffff;color:#1a1e18">a</div><a style="background-color:#22384f;color:white" bgcolor="#22384f">b</a></body></html>'
  const all = asDrawnBy('dark', html)
  expect(all).toContain('background:#000000;color:#e3e7e1')
  expect(all).toMatch(/background-color:#[a-f]\w{5};color:#000000/)
  const light = asDrawnBy('dark-light', html)
  expect(light).toContain('background:#000000;color:#e3e7e1')
  expect(light).toContain('background-color:#22384f;color:#ffffff')
  expect(light).toContain('bgcolor="#22384f"')
})

const color = fc
  .tuple(fc.nat(255), fc.nat(255), fc.nat(255))
  .map((parts) => `#${parts.map((part) => part.toString(16).padStart(2, '0')).join('')}`)

test('turned round twice a colour is itself, and light is dark', () => {
  fc.assert(
    fc.property(color, (one) => {
      expect(inverted(inverted(one))).toBe(one)
      expect(lightness(inverted(one))).toBeCloseTo(1 - lightness(one), 2)
    }),
  )
})

test.each([
  ['#FFF', '#ffffff'],
  ['#22384f', '#22384f'],
  ['rgb(34, 56, 79)', '#22384f'],
  ['rgba(34,56,79,0)', null],
  ['White', '#ffffff'],
  ['transparent', null],
  ['linear-gradient(red, blue)', null],
])('the colour %j is read as %j', (given, read) => expect(readColor(given)).toBe(read))

test('contrast is as the guidelines say', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  fc.assert(
    fc.property(color, color, (a, b) => {
      expect(contrast(a, b)).toBeCloseTo(contrast(b, a), 9)
    }),
  )
})
