import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Rule } from '../segments'
import { cleanDocument } from './clean'
import type { Block, LetterDocument, Row } from './document'
import { compileLetter, mergeLetter, personContext } from './rendering'
import { gapsIn, renditionsOf, truthOf } from './renditions'
import { richText } from './rich-text'
import { conditionsOf, isShown, shownDocument, type ShownTo } from './shown-to'
import { madeUpFrame as frame } from './rendering/made-up'

const rules: Rule[] = [7, 30, 90].map((days) => ({
  kind: 'joined',
  when: { is: 'last-days', days },
}))
const shownTo: fc.Arbitrary<ShownTo | undefined> = fc.oneof(
  { weight: 2, arbitrary: fc.constant(undefined) },
  { weight: 3, arbitrary: fc.constantFrom(...rules).map((rule) => ({ rule })) },
  { weight: 1, arbitrary: fc.constant({ rest: true } as const) },
)
const block = fc.record({
  kind: fc.constantFrom('text', 'heading', 'button', 'contents', 'quote'),
  to: shownTo,
})
/** A letter of a few rows, each part for everybody, for some, or for everyone else. */
const document: fc.Arbitrary<LetterDocument> = fc
  .array(
    fc.record({
      to: shownTo,
      columns: fc.array(fc.array(block, { maxLength: 3 }), { minLength: 1, maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((rows) => {
    let n = 0
    const built = rows.map(({ to, columns }): Row => ({
      id: `r${n++}`,
      ...(to ? { shownTo: to } : {}),
      columns: columns.map((blocks) => ({
        share: 1 / columns.length,
        blocks: blocks.map(({ kind, to: shown }) => ({
          ...blockOf(kind, `b${n++}`),
          ...(shown ? { shownTo: shown } : {}),
        })),
      })),
    }))
    const footer: Block = { id: 'footer', kind: 'footer', text: richText('You asked for it.') }
    return { version: 1, rows: [...built, { id: 'rf', columns: [{ share: 1, blocks: [footer] }] }] }
  })

function blockOf(kind: string, id: string): Block {
  const link = { type: 'link' as const, attrs: { href: `https://galewright.example/${id}` } }
  switch (kind) {
    case 'heading':
      return { id, kind, level: 2, align: 'left', text: richText(`Heading ${id}`) }
    case 'button':
      return {
        id,
        kind,
        label: `Go ${id}`,
        href: `https://galewright.example/${id}`,
        align: 'left',
      }
    case 'contents':
      return { id, kind, title: 'In this letter' }
    case 'quote':
      return { id, kind, text: richText(`Said ${id}`), by: 'Tove' }
    default:
      return {
        id,
        kind: 'text',
        text: richText([{ type: 'text', text: `Text ${id}`, marks: [link] }]),
      }
  }
}
const truths = fc.tuple(fc.boolean(), fc.boolean(), fc.boolean())
const context = personContext(
  { address: 'tove@inkpost.example', values: {} },
  { list: 'Wind notes', sender: 'Galewright', mailing: 'm' },
)
/** The body without what only one old mail program reads, which differs by what stands beside a part. */
const seen = (html: string) =>
  html
    .slice(html.indexOf('<body'))
    .replace(/<!--\[if.*?<!\[endif\]-->/gs, '')
    .replace(/\s+/g, ' ')
    .replace(/> </g, '><')

test('what a reader gets is the letter without what is not for them, in HTML and in text', async () => {
  await fc.assert(
    fc.asyncProperty(document, truths, async (given, truth) => {
      const letter = { subject: 'Wind', previewText: '', document: given }
      const { rules: order } = conditionsOf(given)
      const mine = order.map((rule) => truth[rules.indexOf(rule)]!)
      const shown = shownDocument(given, mine)
      const plain: LetterDocument = JSON.parse(
        JSON.stringify(shown, (key, value: unknown) => (key === 'shownTo' ? undefined : value)),
      )
      const merged = mergeLetter(await compileLetter(letter, frame), context, mine)
      const whole = mergeLetter(await compileLetter({ ...letter, document: plain }, frame), context)
      expect(merged.text.replace(/\n+/g, '\n')).toBe(whole.text.replace(/\n+/g, '\n'))
      expect(seen(merged.html)).toBe(seen(whole.html))
    }),
    { numRuns: 40 },
  )
})

test('everyone else are those who got none of the ones before; alternatives with it leave nobody out', () => {
  fc.assert(
    fc.property(document, truths, (given, truth) => {
      const conditions = conditionsOf(given)
      let run: string[] = []
      for (const row of given.rows) {
        if (!row.shownTo) run = []
        else if ('rule' in row.shownTo) run.push(row.id)
        else {
          const shown = [...run, row.id].filter((id) => isShown(conditions.of.get(id)!, truth))
          expect(shown.length).toBeGreaterThan(0)
          if (shown.includes(row.id)) expect(shown).toEqual([row.id])
          run = []
        }
      }
    }),
  )
})

test('renditions sum to the audience, and each is another letter', () => {
  const counts = fc.array(fc.nat(5_000), { minLength: 8, maxLength: 8 })
  fc.assert(
    fc.property(document, counts, (given, people) => {
      const conditions = conditionsOf(given)
      const kinds = 2 ** conditions.rules.length
      const audience = people
        .slice(0, kinds)
        .flatMap((n, truth) => (n ? [{ truth, people: n }] : []))
      const renditions = renditionsOf(given, audience)
      const sum = (list: { people: number }[]) => list.reduce((n, one) => n + one.people, 0)
      expect(sum(renditions)).toBe(sum(audience))
      expect(renditions.flatMap(({ truths: of }) => of).sort()).toEqual(
        audience.map(({ truth }) => truth).sort(),
      )
      expect(new Set(renditions.map(({ without }) => without.join(' '))).size).toBe(
        renditions.length,
      )
      for (const { truths: of, without } of renditions)
        for (const truth of of) {
          const ids = (doc: LetterDocument) =>
            new Set([
              ...doc.rows.map(({ id }) => id),
              ...doc.rows.flatMap(({ columns }) =>
                columns.flatMap(({ blocks }) => blocks.map(({ id }) => id)),
              ),
            ])
          const left = ids(shownDocument(given, truthOf(truth, conditions.rules.length)))
          for (const id of without) expect(left.has(id)).toBe(false)
        }
      const most = renditions.map(({ people: n }) => n)
      expect(most).toEqual(most.toSorted((a, b) => b - a))
    }),
  )
})

const row = (id: string, to?: ShownTo): Row => ({
  id,
  ...(to ? { shownTo: to } : {}),
  columns: [{ share: 1, blocks: [{ id: `b-${id}`, kind: 'text', text: richText(id) }] }],
})

test('two alternatives that leave some with neither are told with how many', () => {
  const [a, b] = rules as [Rule, Rule]
  const without: LetterDocument = {
    version: 1,
    rows: [row('1', { rule: a }), row('2', { rule: b }), row('3')],
  }
  const audience = [
    { truth: 0, people: 285 },
    { truth: 1, people: 10 },
    { truth: 2, people: 20 },
    { truth: 3, people: 5 },
  ]
  expect(gapsIn(without, renditionsOf(without, audience))).toEqual([
    { rows: ['1', '2'], people: 285 },
  ])
  const complete: LetterDocument = {
    version: 1,
    rows: [row('1', { rule: a }), row('2', { rule: b }), row('3', { rest: true })],
  }
  expect(gapsIn(complete, renditionsOf(complete, audience))).toEqual([])
  expect(
    renditionsOf(complete, audience).map(({ people, without: gone }) => [people, gone]),
  ).toEqual([
    [285, ['1', '2']],
    [20, ['1', '3']],
    [10, ['2', '3']],
    [5, ['3']],
  ])
})

test('a rule that is none keeps nobody, and nothing takes the footer from anybody', () => {
  const cleaned = cleanDocument({
    version: 1,
    rows: [
      {
        id: 'r',
        shownTo: { rule: { kind: 'nonsense' } },
        columns: [{ blocks: [{ kind: 'divider' }] }],
      },
      {
        id: 'f',
        shownTo: { rule: rules[0] },
        hidden: 'narrow',
        columns: [
          { blocks: [{ id: 'footer', kind: 'footer', hidden: 'wide', shownTo: { rest: true } }] },
        ],
      },
    ],
  })!
  expect(cleaned.rows[0]!.shownTo).toEqual({ rule: { kind: 'any', of: [] } })
  expect(cleaned.rows[1]).not.toHaveProperty('shownTo')
  expect(cleaned.rows[1]).not.toHaveProperty('hidden')
  expect(Object.keys(cleaned.rows[1]!.columns[0]!.blocks[0]!).sort()).toEqual([
    'id',
    'kind',
    'text',
  ])
})
