import { expect, test } from 'vitest'
import { MINUTE } from '../../core/time'
import { all, q } from '../../database'
import { madeUpAccount } from '../../database/made-up'
import { madeUpForm, seenForm, sendIn } from './made-up'

const BOTS = 5_000
const PEOPLE = 400
const START = Date.UTC(2026, 10, 23, 9)

/** What bots do that send a form in many times: none of them runs the page's script to its end. */
const bots = [
  // Fills in everything there is, also what nobody sees.
  (n: number) => ({ trapped: true, drawnFor: 9_000, work: null, ip: `198.51.100.${n % 250}` }),
  // Sends the form in the moment it has it.
  (n: number) => ({ drawnFor: 150, work: null, ip: `192.0.2.${n % 250}` }),
  // Makes tokens up, or sends none that is ours.
  (n: number) => ({ drawnFor: null, work: null, ip: `203.0.113.${n % 250}` }),
  // Waits as a person would, each time from elsewhere, but does no work.
  (n: number) => ({ drawnFor: 8_000 + n, work: null, ip: `10.${n % 250}.${n % 199}.7` }),
  // Did the work once, and hands it in again and again.
  (n: number) => ({ drawnFor: 8_000 + n, work: 'once', ip: `172.16.${n % 250}.9` }),
]

test('of five thousand bots among people at most one in a thousand is mailed, and no person is kept away', () => {
  const { db, list } = madeUpAccount()
  const seen = seenForm(db, madeUpForm([list]))
  const every = BOTS / PEOPLE
  const people = new Set<string>()
  for (let n = 0; n < BOTS; n++) {
    // All of it in an hour, so that no limit has time to be forgotten.
    const at = START + Math.floor((n / BOTS) * 60 * MINUTE)
    const bot = bots[n % bots.length]!(n)
    sendIn(db, seen, `bot${n}@inkpost.example`, [`list${list}`], at, bot)
    if (n % every >= 1) continue
    const address = `person${n}@inkpost.example`
    people.add(address)
    // Several people share an address on the internet, as in an office.
    const ip = `100.64.${Math.floor(n / 200)}.1`
    sendIn(db, seen, address, [`list${list}`], at, { drawnFor: 6_000 + n, ip })
  }
  const rows = all(db, q.selectFrom('sign_up_sendings').select(['normal', 'state', 'doubt']))
  const passed = rows.filter(({ normal, state }) => state === 'pending' && !people.has(normal))
  expect(passed.length).toBeLessThanOrEqual(BOTS / 1_000)
  expect(people.size).toBeGreaterThanOrEqual(PEOPLE)
  expect(rows.filter(({ normal, state }) => people.has(normal) && state !== 'pending')).toEqual([])
  expect(new Set(rows.map(({ doubt }) => doubt))).toEqual(
    new Set(['trap', 'fast', 'token', 'unproven', null]),
  )
})
