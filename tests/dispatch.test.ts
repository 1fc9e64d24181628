import { expect, test } from 'vitest'
import { HOUR, practiceTime } from '../core/time'
import { all, one, q, run } from '../database'
import { readClock } from '../database/account'
import {
  createMailing,
  mailingById,
  moveMailing,
  totalsOf,
  updateMailing,
  planOf,
  variantsOf,
} from '../database/mailings'
import { letterOf } from '../database/letters'
import { plainPlan } from '../core/dispatch'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'
import { finishedLetter } from './subscribers'

/** How a mailing goes out: tests, holdouts, pace, and what is seen of it on the way and afterwards. */
const { satchel, visitor, page, seen, jumpTo } = demoInBrowser(900)
const idOf = (name: string) =>
  one(satchel.db, q.selectFrom('mailings').select('id').where('name', '=', name))!.id
const plan = (id: number) => planOf(mailingById(satchel.db, id)!)
const recipients = (id: number) =>
  all(satchel.db, q.selectFrom('recipients').selectAll().where('mailing_id', '=', id))
const jump = async (by: string) => {
  await page()
    .getByRole('button', { name: /Practice clock/ })
    .click()
  await page().getByRole('button', { name: by }).click()
}

/**
 * Waits for what a mailing comes to, whatever its providers make of it by chance: who asks for another try later is tried
 * again by the practice clock, and where too many did, it is resumed.
 */
async function comesTo(id: number, what: string, isSo: () => boolean) {
  const standing = () => {
    const { state, held_by } = mailingById(satchel.db, id)!
    return JSON.stringify({ state, held_by, totals: totalsOf(satchel.db, id) })
  }
  let looks = 0
  await until(what, async () => {
    if (isSo()) return true
    if (++looks % 300 > 0) return false
    if (mailingById(satchel.db, id)!.state === 'held')
      await page().request.post(`${satchel.url}/api/mailings/${id}/resume`)
    else await jumpTo(practiceTime(readClock(satchel.db)!, Date.now()) + HOUR)
    return false
  }).catch((error: Error) => {
    throw new Error(`${error.message} ${standing()}`, { cause: error })
  })
}

test('a test is set up with what it can show; what is missing is said, and nothing goes out before', async () => {
  const id = idOf('Winter workshop')
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await seen('A/B test')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'One more variant' }).click()
  await seen('Variant D has no subject yet.')
  expect(
    await page()
      .getByRole('button', { name: /^Send to/ })
      .isDisabled(),
  ).toBe(true)
  await page().getByLabel('Subject of variant D').fill('Repair day: eight places')
  await page().getByLabel('Subject of variant D').press('Tab')
  await until(
    'it is saved',
    () => plan(id).test!.variants[3]?.subject === 'Repair day: eight places',
  )
  await page().getByRole('button', { name: 'Remove variant D' }).click()
  await until('it is gone', () => plan(id).test!.variants.length === 3)
  await seen('only large differences show')
  await seen(/This test would show a difference of/)
  await page().getByLabel('After', { exact: true }).fill('2')
  await page().getByLabel('After', { exact: true }).press('Tab')
  await until('the hours are saved', () => plan(id).test!.hours === 2)
  await page().getByLabel('Control group').selectOption('10%')
  await until('the holdout is saved', () => plan(id).holdout === 0.1)
})

test('it goes out in parts: the test decides by itself, the rest gets the best, nobody twice', async () => {
  const id = idOf('Winter workshop')
  await page()
    .getByRole('button', { name: /^Send to/ })
    .click()
  await until('it begins', () => mailingById(satchel.db, id)!.started_at !== null)
  await seen('In parts')
  await seen(/The test decides by itself/)
  await visitor.expectAccessible()
  const first = recipients(id)
  const heldOut = all(satchel.db, q.selectFrom('holdouts').selectAll().where('mailing_id', '=', id))
  expect(new Set(first.map(({ variant }) => variant))).toEqual(new Set([0, 1, 2]))
  await jump('6 hours')
  await until('the test is decided', () => mailingById(satchel.db, id)!.winner !== null)
  const { winner, decided_at, started_at } = mailingById(satchel.db, id)!
  expect(decided_at! - started_at!).toBeGreaterThanOrEqual(2 * 3_600_000)
  await comesTo(id, 'the rest has gone', () => {
    const { queued, claimed } = totalsOf(satchel.db, id)!
    return recipients(id).length > first.length && queued + claimed === 0
  })
  const whole = recipients(id)
  expect(whole.filter(({ part }) => part === 1).every(({ variant }) => variant === winner)).toBe(
    true,
  )
  const mailed = new Set(whole.map(({ person_id }) => person_id))
  for (const { person_id } of heldOut) expect(mailed.has(person_id)).toBe(false)
  const subjects = variantsOf(satchel.db, id).map(
    ({ letter_id }) => letterOf(satchel.db, letter_id).subject,
  )
  const mails = (await (await fetch(`${satchel.worldUrl}/mailboxes.json`)).json()) as {
    address: string
    subject: string
  }[]
  const theirs = mails.filter(({ subject }) => subjects.includes(subject))
  expect(new Set(theirs.map(({ address }) => address)).size).toBe(theirs.length)
  const people = new Map(
    all(satchel.db, q.selectFrom('people').select(['id', 'normal'])).map((one) => [
      one.id,
      one.normal,
    ]),
  )
  const got = new Map(theirs.map(({ address, subject }) => [address, subject]))
  for (const { person_id, variant, state } of whole)
    if (state === 'accepted') expect(got.get(people.get(person_id)!)).toBe(subjects[variant!])
})

test('its results show the test, how sure it is, and what the mailing was worth', async () => {
  const id = idOf('Winter workshop')
  await page().goto(`${satchel.url}/mail/${id}/results`)
  await seen('The test: decided')
  await seen(/The rest got [ABC], decided .* by itself/)
  await seen(/ordered within 7 days/)
  await seen(/control group/)
  await visitor.expectAccessible()
})

test('a test is decided by hand', async () => {
  const letter = finishedLetter('By hand')
  const id = createMailing(satchel.db, { name: 'By hand', listId: 1, letter }, Date.now())
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await page().getByRole('button', { name: 'the sender’s name' }).click()
  await page().getByLabel('Sender’s name of variant B').fill('Wren at Galewright')
  await page().getByLabel('Sender’s name of variant B').press('Tab')
  // What is counted meanwhile arrives above it, and may move it from under a slow press.
  const byHand = page().getByRole('button', { name: 'I decide' })
  await until('it is chosen', async () => {
    await byHand.click()
    return (await byHand.getAttribute('aria-pressed')) === 'true'
  })
  await until(
    'it is saved',
    () =>
      plan(id).test?.decides === 'hand' &&
      plan(id).test?.variants[1]?.senderName === 'Wren at Galewright',
  ).catch((error: Error) => {
    throw new Error(`${error.message} ${JSON.stringify(plan(id).test)}`, { cause: error })
  })
  await page()
    .getByRole('button', { name: /^Send to/ })
    .click()
  await seen('The rest waits until you decide.')
  await comesTo(id, 'the test has gone', () => {
    const totals = totalsOf(satchel.db, id)
    return !!totals && totals.accepted > 0 && totals.queued + totals.claimed === 0
  })
  // Though the queue is empty, the rest can still be cancelled.
  await page().getByRole('button', { name: 'Cancel the rest' }).waitFor()
  await page().getByRole('button', { name: 'Variant B' }).click()
  await seen(/The rest gets B, decided/)
  const rest = () => recipients(id).filter(({ part }) => part === 1)
  await comesTo(id, 'the rest goes out', () => rest().some(({ state }) => state === 'accepted'))
  expect(rest().every(({ variant }) => variant === 1)).toBe(true)
})

test('the keenest go first; a bad provider stops what follows until somebody lets it go on', async () => {
  const letter = finishedLetter('Wide')
  const id = createMailing(satchel.db, { name: 'Wide', listId: 1, letter }, Date.now())
  updateMailing(satchel.db, id, { plan: JSON.stringify({ ...plainPlan, pace: 'widening' }) })
  // Everybody keen moves to a provider that knows none of them.
  run(
    satchel.db,
    q
      .updateTable('people')
      .set((eb) => ({
        normal: eb.fn<string>('printf', [eb.val('gone-%d@shutterbox.example'), 'id']),
        address: eb.fn<string>('printf', [eb.val('gone-%d@shutterbox.example'), 'id']),
        domain: 'shutterbox.example',
      }))
      .where('id', 'in', (eb) =>
        eb.selectFrom('facts').select('person_id').orderBy('keenness', 'desc').limit(300),
      ),
  )
  moveMailing(satchel.db, id, ['draft'], 'scheduled', { scheduled_at: Date.now() })
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  await seen(/stopped by itself/)
  await seen(/bounced or were refused/)
  await visitor.expectAccessible()
  const before = recipients(id).length
  expect(mailingById(satchel.db, id)).toMatchObject({ state: 'held', held_by: 'line' })
  await page().goto(satchel.url)
  await seen('“Wide” stopped by itself')
  await page().goBack()
  await page().getByRole('button', { name: 'Resume' }).click()
  // The same tier is gone on with, watched anew: it may stop again, and no other follows before it was watched.
  let jumped = false
  await until('the next tier follows', async () => {
    const { state } = mailingById(satchel.db, id)!
    const { queued, claimed } = totalsOf(satchel.db, id)!
    if (state === 'held') {
      expect(recipients(id).length).toBe(before)
      await page().request.post(`${satchel.url}/api/mailings/${id}/resume`)
    } else if (!jumped && queued + claimed === 0) {
      jumped = true
      await jump('6 hours')
    }
    return recipients(id).length > before
  })
})

test('a mailing has a sender of its own; what can’t be one stays as typed, with what is wrong', async () => {
  const letter = finishedLetter('From Wren')
  const id = createMailing(satchel.db, { name: 'From Wren', listId: 1, letter }, Date.now())
  await page().goto(`${satchel.url}/mail/${id}/dispatch`)
  const local = page().getByLabel('Sender’s address', { exact: true })
  await local.fill('wren notes')
  await local.press('Tab')
  await seen('Letters, digits, and single dots between them; no spaces and no @.')
  expect(await local.inputValue()).toBe('wren notes')
  await visitor.expectAccessible()
  await local.fill('wren')
  await local.press('Tab')
  await page().getByLabel('Replies go').selectOption('to another address')
  await page().getByLabel('Address for replies').fill('desk@galewright.example')
  await page().getByLabel('Address for replies').press('Tab')
  await until('it is kept', () => plan(id).sender.replies === 'desk@galewright.example')
  expect(plan(id).sender).toEqual({ name: '', local: 'wren', replies: 'desk@galewright.example' })
  await seen(/from Galewright Kites <wren@galewright\.example> goes to/)
})

test('an owner lets a blocker pass with a reason, which is kept, and takes it back', async () => {
  const id = idOf('Gale season sale')
  await page().goto(`${satchel.url}/mail/${id}/proof`)
  // Its links have been asked by then, too.
  await seen(/Blocked: 2 blockers/)
  await page().getByRole('button', { name: 'Let it go all the same…' }).click()
  await page().getByRole('button', { name: 'Let it go', exact: true }).click()
  await seen('Say why it may go out all the same.')
  await page().getByLabel('Why').fill('The page goes up at noon.')
  await visitor.expectAccessible()
  await page().getByRole('button', { name: 'Let it go', exact: true }).click()
  await seen('Nothing blocks it')
  await seen(/let 2 blockers pass/)
  expect(mailingById(satchel.db, id)!.overruled).toContain('The page goes up at noon.')
  await page().getByRole('button', { name: 'Revoke' }).click()
  await seen(/Blocked: \d+ blockers?/)
  visitor.errors.splice(0) // the refusal stands in the console, as it should
})

test('the browser’s console said no error', () => expect(visitor.errors).toEqual([]))
