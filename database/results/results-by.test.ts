import { beforeAll, expect, test } from 'vitest'
import { deviceOf } from '../../core/counting'
import { makeAccount } from '../../demo/account'
import { all, openMemory, q, run, type Database } from '..'
import { countMembers } from '../segments'
import { totalsOf } from '../mailings'
import { resultsBy, waysToSplit } from './results-by'

const now = Date.UTC(2026, 10, 23, 9, 40)
let db: Database
let sent: number[]
beforeAll(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 5, size: 400, now, passwordHash: '!' })
  sent = all(db, q.selectFrom('mailings').select('id').where('state', '=', 'sent')).map(
    ({ id }) => id,
  )
})
const mailings = () => [...sent.slice(0, 4), ...sent.slice(-4)]
const by = (id: number, what: string) => resultsBy(db, id, what, now)!

test('provider, tier, variant and fields of one value split a mailing’s people without loss', () => {
  for (const id of mailings()) {
    const totals = totalsOf(db, id)!
    for (const { key } of waysToSplit(db, id)) {
      if (['segment', 'device', 'field:flying_style'].includes(key)) continue
      const sum = (of: 'delivered' | 'opened' | 'clicked' | 'left' | 'bounced' | 'complained') =>
        by(id, key).reduce((total, part) => total + part[of], 0)
      expect([key, sum('opened')]).toEqual([key, totals.opened])
      expect(sum('delivered')).toBe(totals.accepted + totals.complained)
      expect(sum('clicked')).toBe(totals.clicked)
      expect(sum('left')).toBe(totals.left_list)
      expect([key, id, sum('bounced')]).toEqual([key, id, totals.bounced + totals.failed])
      expect(sum('complained')).toBe(totals.complained)
    }
  }
})

test('the people of a part are found by its rule: as many as it was sent to', () => {
  const [id] = mailings()
  const ways = waysToSplit(db, id!).map(({ key }) => key)
  expect(ways.length).toBeGreaterThan(5)
  let asked = 0
  for (const key of ways)
    for (const part of by(id!, key)) {
      if (!part.rule) continue
      const was = (did: 'delivered' | 'opened' | 'left' | 'complained' | 'bounced') => ({
        kind: 'mail' as const,
        did,
        of: { which: 'mailing' as const, id: id!, link: null },
        times: { is: 'at-least' as const, n: 1 },
        withinDays: null,
      })
      for (const did of ['delivered', 'opened', 'left', 'complained', 'bounced'] as const) {
        const rule = { kind: 'all' as const, of: [was(did), part.rule] }
        expect([key, part.name, did, countMembers(db, rule, now)]).toEqual([
          key,
          part.name,
          did,
          part[did],
        ])
      }
      asked++
    }
  expect(asked).toBeGreaterThan(20)
})

test('devices are those of the opens; what can’t be looked at so is null', () => {
  const id = sent.at(-1)!
  const devices = by(id, 'device')
  expect(devices.length).toBeGreaterThan(0)
  for (const { opened } of devices) expect(opened).toBeLessThanOrEqual(totalsOf(db, id)!.opened)
  expect(resultsBy(db, id, 'field:nothing', now)).toBeNull()
  expect(resultsBy(db, id, 'hat size', now)).toBeNull()
  run(db, q.deleteFrom('acts'))
  expect(by(id, 'device')).toEqual([])
})

test.each([
  ['PocketPost/7.3 (phone)', 'phone'],
  ['PocketPost/7.3 (tablet)', 'tablet'],
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) Quillreader/12.0', 'computer'],
  ['Mozilla/5.0', 'unknown'],
])('%s is a %s', (agent, device) => expect(deviceOf(agent)).toBe(device))
