import fc from 'fast-check'
import { expect, test } from 'vitest'
import { made, steps, type Steps } from './arbitrary'
import { blocksOf, emptyLetter, newBlock, type Letter } from './document'
import { insertRow, removeBlock, updateBlock } from './changes'
import { joinLetters } from './join'

const start = { ...emptyLetter(), subject: 'Wind' }
const letter = (from: Letter, by: string, all: Steps): Letter => ({
  ...from,
  document: made(from.document, by, all),
})
const base = steps.map((all) => letter(start, 'o', all))
const ids = (one: Letter) => blocksOf(one.document).map(({ id }) => id)

test('who alone changed a letter has it as they made it', () => {
  fc.assert(
    fc.property(base, steps, (before, all) => {
      const after = letter(before, 'm', all)
      expect(joinLetters(before, after, before)).toEqual({ letter: after, contested: [] })
      expect(joinLetters(before, before, after)).toEqual({ letter: after, contested: [] })
      expect(joinLetters(before, after, after).letter).toEqual(after)
    }),
    { numRuns: 500 },
  )
})

test('nothing that either wrote is lost, and nothing stands there twice', () => {
  fc.assert(
    fc.property(base, steps, steps, (before, mine, theirs) => {
      const [m, t] = [letter(before, 'm', mine), letter(before, 't', theirs)]
      const { letter: joined, contested } = joinLetters(before, m, t)
      expect(new Set(ids(joined)).size).toBe(ids(joined).length)
      expect(blocksOf(joined.document).filter(({ kind }) => kind === 'footer')).toHaveLength(1)
      const old = (id: string) => blocksOf(before.document).find((block) => block.id === id)
      for (const side of [m, t])
        for (const block of blocksOf(side.document)) {
          if (JSON.stringify(old(block.id)) === JSON.stringify(block)) continue
          const there = blocksOf(joined.document).find(({ id }) => id === block.id)!
          expect(there).toBeDefined()
          for (const [key, value] of Object.entries(block))
            if (JSON.stringify(value) !== JSON.stringify(old(block.id)?.[key as 'id']))
              if (!contested.includes(block.id)) expect(there[key as 'id']).toEqual(value)
        }
      const sums = joined.document.rows.map(({ columns }) =>
        columns.reduce((sum, { share }) => sum + share, 0),
      )
      for (const sum of sums) expect(sum).toBeCloseTo(1)
    }),
    { numRuns: 500 },
  )
})

test('joining again changes nothing', () => {
  fc.assert(
    fc.property(base, steps, steps, (before, mine, theirs) => {
      const [m, t] = [letter(before, 'm', mine), letter(before, 't', theirs)]
      const { letter: joined } = joinLetters(before, m, t)
      expect(joinLetters(t, joined, t).letter).toEqual(joined)
    }),
    { numRuns: 300 },
  )
})

test('where both wrote in one block, mine stands and the block is named', () => {
  const document = insertRow(start.document, 0, newBlock('button', 'go'))
  const before = { ...start, document }
  const wrote = (label: string): Letter => ({
    ...before,
    document: updateBlock(document, 'go', { label }),
  })
  const { letter: joined, contested } = joinLetters(before, wrote('Mine'), wrote('Theirs'))
  expect(blocksOf(joined.document)[0]).toMatchObject({ label: 'Mine' })
  expect(contested).toEqual(['go'])
  expect(joinLetters(before, { ...before, subject: 'A' }, { ...before, subject: 'B' })).toEqual({
    letter: { ...before, subject: 'A' },
    contested: ['letter'],
  })
})

test('a block that one deleted and the other wrote in stays', () => {
  const document = insertRow(start.document, 0, newBlock('button', 'go'))
  const before = { ...start, document }
  const gone = { ...before, document: removeBlock(document, 'go') }
  const wrote = { ...before, document: updateBlock(document, 'go', { label: 'Look' }) }
  for (const [mine, theirs] of [
    [gone, wrote],
    [wrote, gone],
  ] as const)
    expect(blocksOf(joinLetters(before, mine, theirs).letter.document)[0]).toMatchObject({
      label: 'Look',
    })
  expect(joinLetters(before, gone, before).letter).toEqual(gone)
})
