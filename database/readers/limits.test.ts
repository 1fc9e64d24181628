import { beforeEach, expect, test } from 'vitest'
import { DAY } from '../../core/time'
import { madeUpAccount, somebody } from '../made-up'
import { everythingKnown, mergePeople } from '../people'
import { all, q, run, type Database } from '../query'
import { endPause, limitMail, ownChangesOf, ownLimitsOf, pauseMail } from '.'

let db: Database
let person: number
const by = { detail: 'no mail for 2 weeks', mailingId: null, ip: '127.0.0.1', agent: 'a browser' }

beforeEach(() => {
  ;({ db } = madeUpAccount())
  person = somebody(db, 'tove')
})

test('what a reader asked for is kept with what they pressed, and never changed afterwards', () => {
  pauseMail(db, person, 14 * DAY, { ...by, wording: 'Pause for 2 weeks' }, 1)
  limitMail(db, person, 7, { ...by, wording: 'At most one a week' }, 2)
  expect(ownLimitsOf(db, person)).toEqual({ pausedUntil: 14 * DAY, oneInDays: 7 })
  endPause(db, person, { ...by, wording: 'Send me mail again' }, 3)
  expect(ownLimitsOf(db, person).pausedUntil).toBe(3)
  // Asking again for what holds already changes nothing.
  endPause(db, person, { ...by, wording: 'Send me mail again' }, 4)
  limitMail(db, person, 7, { ...by, wording: 'At most one a week' }, 4)
  expect(ownChangesOf(db, person).map(({ at, what, wording }) => [at, what, wording])).toEqual([
    [3, 'pause-ended', 'Send me mail again'],
    [2, 'one-a-week', 'At most one a week'],
    [1, 'paused', 'Pause for 2 weeks'],
  ])
  expect(() => run(db, q.updateTable('own_changes').set({ at: 9 }))).toThrow('never updated')
  expect(everythingKnown(db, person)).toMatchObject({
    own_limits: { one_mailing_in_days: 7 },
    changed_by_themselves: [{ what: 'pause-ended' }, { what: 'one-a-week' }, { what: 'paused' }],
  })
})

test('merged, the longer pause and the stricter limit hold, and all that was changed is kept', () => {
  const other = somebody(db, 'tove2')
  pauseMail(db, person, 14 * DAY, { ...by, wording: 'x' }, 1)
  pauseMail(db, other, 28 * DAY, { ...by, wording: 'y' }, 2)
  limitMail(db, other, 7, { ...by, wording: 'z' }, 3)
  mergePeople(db, person, other, 4)
  expect(ownLimitsOf(db, person)).toEqual({ pausedUntil: 28 * DAY, oneInDays: 7 })
  expect(ownChangesOf(db, person)).toHaveLength(3)
  expect(all(db, q.selectFrom('own_limits').select('person_id'))).toEqual([{ person_id: person }])
})
