import { beforeEach, expect, test } from 'vitest'
import { conditionsOf, type Letter } from '../../core/letters'
import { richText } from '../../core/letters/rich-text'
import type { Condition, Rule } from '../../core/segments'
import { madeUpAccount } from '../made-up'
import { createMailing, mailingById, moveMailing } from '../mailings'
import { letterOf } from '../letters'
import type { Database } from '../query'
import { rewriteRules } from './rewrite-rules'
import { addSegment, segmentById, usesOfSegment } from '../segments'

const tagged = (tagId: number): Rule => ({ kind: 'tagged', tagId })
const inSegment = (segmentId: number): Rule => ({ kind: 'segment', segmentId })
const letter = (rule: Rule): Letter => ({
  subject: 'Wind',
  previewText: '',
  document: {
    version: 1,
    rows: [
      {
        id: 'r',
        shownTo: { rule: { kind: 'all', of: [rule] } },
        columns: [
          {
            share: 1,
            blocks: [{ id: 'b', kind: 'text', text: richText('Some'), shownTo: { rule } }],
          },
        ],
      },
    ],
  },
})
let db: Database
let list: number
beforeEach(() => void ({ db, list } = madeUpAccount()))
const written = (rule: Rule) =>
  createMailing(db, { name: 'Wind', listId: list, letter: letter(rule) }, 0)
const rulesOf = (mailing: number) =>
  conditionsOf(letterOf(db, mailingById(db, mailing)!.letter_id).document).rules
const join = (part: Condition): Condition =>
  part.kind === 'tagged' && part.tagId === 1 ? { ...part, tagId: 2 } : part

test('what a letter’s rows and blocks ask for is joined, too, until it goes out', () => {
  const open = written(tagged(1))
  const gone = written(tagged(1))
  moveMailing(db, gone, ['draft'], 'sending', { started_at: 5 })
  const segment = addSegment(db, 'Owners', tagged(1), 0)
  const before = letterOf(db, mailingById(db, open)!.letter_id).version
  rewriteRules(db, join)
  expect(rulesOf(open)).toEqual([{ kind: 'all', of: [tagged(2)] }, tagged(2)])
  expect(rulesOf(gone)).toEqual([{ kind: 'all', of: [tagged(1)] }, tagged(1)])
  expect(segmentById(db, segment)!.rule).toEqual(tagged(2))
  // Whoever has the letter open is told before they write over it.
  expect(letterOf(db, mailingById(db, open)!.letter_id).version).toBe(before + 1)
})

test('a letter that asks for something else is left as it is', () => {
  const other = written(tagged(3))
  rewriteRules(db, join)
  expect(letterOf(db, mailingById(db, other)!.letter_id).version).toBe(1)
})

test('a segment says in which letters it is used', () => {
  const segment = addSegment(db, 'Owners', tagged(1), 0)
  const mailing = written(inSegment(segment))
  written(inSegment(segment + 1))
  expect(usesOfSegment(db, segment).mailings).toEqual([
    { id: mailing, name: 'Wind', state: 'draft' },
  ])
  moveMailing(db, mailing, ['draft'], 'sending', { started_at: 5 })
  expect(usesOfSegment(db, segment).mailings).toEqual([])
})
