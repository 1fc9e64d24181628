import { expect, test } from 'vitest'
import { cleanDocument } from '../clean'
import type { Letter } from '../document'
import { mjmlToHtml } from './compile'
import { letterSource } from './source'
import { madeUpFrame as frame } from './made-up'

const text = (words: unknown[]) => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: words }],
})
const rule = { kind: 'joined', when: { is: 'last-days', days: 30 } }
const columns = (...blocks: unknown[]) => [{ share: 1, blocks }]
/** A letter with every kind of block. */
const letter: Letter = {
  subject: 'Wind for {{ person.town | default: "you" }}',
  previewText: 'Force 5',
  document: cleanDocument({
    version: 1,
    style: { size: 17, ground: '#ffeedd' },
    rows: [
      {
        columns: columns({
          id: 'h',
          kind: 'heading',
          level: 1,
          text: text([
            { type: 'text', text: 'Up, ' },
            { type: 'fillIn', attrs: { expression: 'person.first_name' } },
          ]),
        }),
      },
      {
        shownTo: { rule },
        style: { ground: '#dfe7ee', space: 20 },
        narrow: 'reverse',
        columns: [
          {
            share: 2,
            blocks: [
              {
                kind: 'picture',
                src: '/p/a.png',
                alt: 'A delta',
                href: 'https://a.example/?x=1&y=2',
              },
            ],
          },
          {
            share: 1,
            blocks: [
              {
                kind: 'product',
                name: 'Delta 7',
                price: '£94',
                was: '£117',
                href: 'https://a.example/d',
                src: '/p/d.png',
              },
            ],
          },
        ],
      },
      {
        shownTo: { rest: true },
        columns: columns({
          kind: 'quote',
          text: text([{ type: 'text', text: 'Holds.' }]),
          by: 'Tove',
        }),
      },
      {
        hidden: 'narrow',
        columns: columns({
          kind: 'table',
          head: true,
          cells: [
            ['Kite', 'Price'],
            ['Delta <7>', '£94'],
          ],
        }),
      },
      {
        columns: columns({
          kind: 'film',
          alt: 'the launch',
          href: 'https://a.example/film',
          src: '/p/f.png',
        }),
      },
      {
        columns: columns({
          kind: 'social',
          links: [{ name: 'Beach', href: 'https://a.example/beach' }],
        }),
      },
      {
        columns: columns(
          { kind: 'contents', title: 'In this letter' },
          { kind: 'code', code: 'if (wind > 5) fly()' },
        ),
      },
      {
        columns: columns({
          kind: 'html',
          html: '<p onclick="x()">Own <b>words</b><script>alert(1)</script><iframe src="https://x.example"></iframe><form><input></form><a href="javascript:x()">no</a><img src="https://a.example/i.png" onerror="x()" style="background:url(https://x.example)"></p>',
        }),
      },
      {
        narrow: 'keep',
        columns: [
          ...columns({ kind: 'button', label: 'Go', href: 'https://a.example/go' }),
          ...columns({ kind: 'divider' }),
        ],
      },
      {
        columns: columns({
          id: 'footer',
          kind: 'footer',
          text: text([{ type: 'text', text: 'You asked.' }]),
        }),
      },
    ],
  })!,
}

test('MJML that is taken out is MJML again, and comes to the same HTML', async () => {
  const mjml = await letterSource(letter, frame, 'mjml')
  expect(mjml).not.toMatch(/[\uE000-\uF8FF]/)
  expect(mjml).toContain('{{ person.first_name }}')
  expect(mjml).toContain('href="https://a.example/?x=1&amp;y=2"')
  const plain = (html: string) => html.replace(/<!--(?!\[if).*?-->/gs, '').replace(/\s+/g, ' ')
  expect(plain(await mjmlToHtml(mjml))).toBe(plain(await letterSource(letter, frame, 'html')))
})

test('HTML has every kind of block, and nothing that runs, sends or counts', async () => {
  const html = await letterSource(letter, frame, 'html')
  for (const words of [
    'Up, ',
    'Delta 7',
    '£94',
    'Holds.',
    'Tove',
    'Delta &lt;7&gt;',
    'Play: the launch',
    'Beach',
    'In this letter',
    'if (wind &gt; 5) fly()',
    'Own <b>words</b>',
    '1 Slipway',
  ])
    expect(html).toContain(words)
  expect(html).not.toMatch(/onclick|onerror|<script|<iframe|<form|<input|javascript:|url\(/)
  expect(html).not.toContain('width="1"')
  expect(html).toContain('#ffeedd')
  expect(html).toMatch(/not-narrow/)
  expect(html).toContain('href="#h-h"')
})

test('text is read from top to bottom, with every link', async () => {
  const plain = await letterSource(letter, frame, 'text')
  const parts = [
    'Up, {{ person.first_name }}',
    '[A delta]',
    'https://a.example/?x=1&y=2',
    'Delta 7',
    '£94 (before: £117)',
    '> Holds.',
    'Kite | Price',
    'Play: the launch',
    'Beach: https://a.example/beach',
    '- Up, {{ person.first_name }}',
    'if (wind > 5) fly()',
    'Own words',
    'Go:',
    'You asked.',
    'Unsubscribe: #leave',
    'Change what you get: #leave',
  ]
  const places = parts.map((part) => [part, plain.indexOf(part)] as const)
  for (const [part, at] of places) expect(at, part).toBeGreaterThanOrEqual(0)
  expect(places.map(([, at]) => at)).toEqual(places.map(([, at]) => at).toSorted((a, b) => a - b))
  expect(plain).not.toMatch(/[\uE000-\uF8FF]/)
})

test('a style is handed down from the letter to its blocks, and the nearest says', async () => {
  const html = await letterSource(letter, frame, 'html')
  expect(html).toContain('font-size:17px')
  expect(html).toContain(`font-size:${Math.round(17 * 2.1)}px`)
  const own = structuredClone(letter)
  own.document.rows[0]!.columns[0]!.blocks[0]!.style = { size: 20, ink: '#112233' }
  const again = await letterSource(own, frame, 'html')
  expect(again).toContain('font-size:42px')
  expect(again).toContain('color:#112233')
})
