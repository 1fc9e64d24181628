import { expect, test } from 'vitest'
import { startingLetter } from '../../letters'
import { madeUpProof } from '../made-up'
import type { ProofFacts } from '../mark'
import { trial } from './trial'

type Trial = ProofFacts['trials'][number]
const at = (provider: string, change: Partial<Trial>): Trial => ({
  ...{ address: `me@${provider}.example`, state: 'inbox', folder: null, changed: false },
  ...{ spf: 'pass', dkim: 'pass', dmarc: 'pass', words: null },
  ...change,
})
const marks = (...trials: Trial[]) => trial(madeUpProof(startingLetter(), { trials }))
const said = (...trials: Trial[]) => marks(...trials).map(({ title, detail }) => [title, detail])

test('nothing is said where all is well, and while it runs', () => {
  expect(marks(at('a', {}), at('b', { state: 'sent' }), at('c', { state: 'closed' }))).toEqual([])
})

test('providers with the same to say are one mark, others their own', () => {
  const junk = { state: 'junk', folder: 'Junk', words: 'subject in capitals' } as const
  expect(said(at('a', junk), at('b', junk), at('c', { ...junk, folder: 'Bulk' }))).toEqual([
    [
      'a.example and b.example put this letter into “Junk”',
      'Its filter notes: subject in capitals.',
    ],
    ['c.example puts this letter into “Bulk”', 'Its filter notes: subject in capitals.'],
  ])
  const five = ['a', 'b', 'c', 'd', 'e'].map((name) => at(name, { ...junk, words: null }))
  expect(said(...five)).toEqual([
    [
      'a.example, b.example, c.example and 2 others put this letter into “Junk”',
      'They do not say why.',
    ],
  ])
})

test('who doubts the sender, took nothing, or let it vanish says so', () => {
  expect(
    said(
      at('a', { spf: 'fail', dkim: 'none' }),
      at('b', { state: 'refused', words: '550 not today' }),
      at('c', { state: 'missing' }),
    ),
  ).toEqual([
    ['a.example takes the letter, but doubts who sent it', 'It says: SPF fail.'],
    ['b.example did not take the letter', '550 not today'],
    ['The letter did not come to me@c.example', expect.stringContaining('five minutes')],
  ])
})

test('of a letter that has changed since it is a note, apart from the others', () => {
  const junk = { state: 'junk', folder: 'Junk' } as const
  const [old, now] = marks(at('a', { ...junk, changed: true }), at('b', junk))
  expect([old!.level, now!.level]).toEqual(['note', 'caution'])
  expect(old!.detail).toMatch(/has changed since; try it again\.$/)
})
