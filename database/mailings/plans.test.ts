import { addressed } from '../../core/delivery'
import { expect, test } from 'vitest'
import { openMemory } from '../connect'
import { claimsBecomeUncertain, claimsOf, nextDueOf, clicksOf, unjudgedActs } from '../sending'
import type { Database } from '../query'
import { claimSome } from '../made-up'

/** Every plan of the queries that `work` runs, as SQLite explains them. */
function plansOf(work: (db: Database) => void): string {
  const db = openMemory()
  work(db)
  return [...db.statements.keys()]
    .filter((text) => text.startsWith('select'))
    .map((text) => {
      const marks = text.split('?').length - 1
      const rows = db.sqlite
        .prepare(`explain query plan ${text}`)
        .all(...Array<number>(marks).fill(1))
      return (rows as { detail: string }[]).map(({ detail }) => detail).join('; ')
    })
    .join('\n')
}

/** What runs many times a second must not look at every recipient of a mailing, or of all of them. */
test.each([
  ['claiming', (db: Database) => void claimSome(claimsOf(db, 'e', 1), 5, 9), /recipients_due/],
  [
    'looking for claims of the dead',
    (db: Database) => void claimsBecomeUncertain(db, ['e'], 9),
    /recipients_claimed/,
  ],
  ['the next that is due', (db: Database) => void nextDueOf(db, 1), /recipients_due/],
  ['acts to be judged', (db: Database) => void unjudgedActs(db, 9, 5), /acts_unjudged/],
  ['clicks of a recipient', (db: Database) => void clicksOf(db, addressed(1, 1)), /acts_clicks/],
])('%s goes by its index', (_, work, index) => {
  const plans = plansOf(work)
  expect(plans).toMatch(index)
  expect(plans).not.toMatch(/SCAN (recipients|acts)(?! USING (COVERING )?INDEX)/)
})
