import { afterAll, beforeAll, expect, test } from 'vitest'
import { all, q } from '../database'
import { mailingById, recountTotals, totalsOf } from '../database/mailings'
import { install, until, type Installation } from './installation'
import { addSubscribers, dueMailing } from './subscribers'

let satchel: Installation
beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 2_000)
  await satchel.start('world')
  await satchel.start('web')
})
afterAll(() => satchel.stop())

test('killed three times in the middle of 2,000, the engine mails nobody twice and loses nobody', async () => {
  const mailing = dueMailing(satchel.db)
  const accepted = () => totalsOf(satchel.db, mailing)?.accepted ?? 0
  for (const share of [0.15, 0.4, 0.7]) {
    await satchel.start('engine')
    await until(`${share} are accepted`, () => accepted() >= 2_000 * share)
    await satchel.kill('engine')
    expect(mailingById(satchel.db, mailing)!.state).toBe('sending')
  }
  await satchel.start('engine')
  await until('the mailing is sent', () => mailingById(satchel.db, mailing)!.state === 'sent')
  await until(
    'claims of dead engines are settled',
    () => totalsOf(satchel.db, mailing)!.claimed === 0,
  )

  const mails = (await (await fetch(`${satchel.worldUrl}/mailboxes.json`)).json()) as {
    address: string
    messageId: string
  }[]
  const copies = new Map<string, number>()
  for (const { address } of mails) copies.set(address, (copies.get(address) ?? 0) + 1)
  expect([...copies].filter(([, n]) => n > 1)).toEqual([])

  const rows = all(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select(['people.normal', 'recipients.state'])
      .where('mailing_id', '=', mailing),
  )
  expect(rows).toHaveLength(2_000)
  const { mailing_id: _, ...totals } = totalsOf(satchel.db, mailing)!
  expect(totals).toMatchObject(recountTotals(satchel.db, mailing))
  // Whoever has a copy is accepted, or was in conversation when an engine died; whoever is accepted has one.
  for (const { normal, state } of rows) {
    if (state === 'accepted') expect(copies.get(normal)).toBe(1)
    else if (copies.has(normal)) expect(state).toBe('uncertain')
    else expect(['uncertain', 'failed']).toContain(state)
  }
  // At most what was in conversation is uncertain: ten connections, three deaths.
  expect(totals.uncertain).toBeLessThanOrEqual(30)
  expect(totals.accepted + totals.uncertain + totals.failed).toBe(2_000)
})
