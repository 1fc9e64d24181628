import { addressed } from '../../core/delivery'
import { beforeEach, expect, test } from 'vitest'
import { q, run, type Database } from '..'
import { everythingKnown } from './everything-known'
import { reasonsOfLeaving, tellWhyLeft } from './leave-reasons'
import { madeUpAccount, somebody } from '../made-up'
import { createMailing } from '../mailings'
import { mergePeople } from './merge'
import { emptyLetter } from '../../core/letters'

let db: Database
let mailing: number
beforeEach(() => {
  const made = madeUpAccount()
  db = made.db
  mailing = createMailing(db, { name: 'Wind', listId: made.list, letter: emptyLetter() }, 1)
})
const gotIt = (person: number, left: number | null) =>
  run(
    db,
    q.insertInto('recipients').values({
      ...{ mailing_id: mailing, person_id: person, state: 'accepted', at: 1, due: 1 },
      left_at: left,
    }),
  )

test('only those who left say why, and what they said last stands', () => {
  const [left, stayed] = [somebody(db, 'left'), somebody(db, 'stayed')]
  gotIt(left, 5)
  gotIt(stayed, null)
  tellWhyLeft(db, addressed(mailing, stayed), 'other', '', 6)
  tellWhyLeft(db, addressed(mailing, somebody(db, 'stranger')), 'other', '', 6)
  expect(reasonsOfLeaving(db, mailing)).toEqual([])
  tellWhyLeft(db, addressed(mailing, left), 'too-many', '', 6)
  tellWhyLeft(db, addressed(mailing, left), 'not-for-me', 'All in all.', 7)
  expect(reasonsOfLeaving(db, mailing)).toEqual([{ reason: 'not-for-me', n: 1 }])
})

test('it is given out with all else that is known, goes over when two are merged, and goes with its person', () => {
  const [kept, gone] = [somebody(db, 'kept'), somebody(db, 'gone')]
  gotIt(gone, 5)
  tellWhyLeft(db, addressed(mailing, gone), 'elsewhere', 'In the paper.', 6)
  mergePeople(db, kept, gone, 8)
  expect(everythingKnown(db, kept)!.mailings).toMatchObject([
    { name: 'Wind', said_why: { reason: 'elsewhere', words: 'In the paper.' } },
  ])
  run(db, q.deleteFrom('people').where('id', '=', kept))
  expect(reasonsOfLeaving(db, mailing)).toEqual([])
})
