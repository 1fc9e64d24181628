import { createSocket } from 'node:dgram'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { recordsToPublish } from '../core/authentication'
import { HOUR } from '../core/time'
import { domainCheck, signingKey } from '../database/account'
import { madeUpAccount } from '../database/made-up'
import { openNames } from '../world/names/server'
import { checkDomains, sendingAddresses } from './check-domain'
import { madeUpEngine } from './made-up'

const zone = join(mkdtempSync(join(tmpdir(), 'satchel-zone-')), 'zone.json')
const names = openNames(zone)
beforeAll(() => new Promise<void>((done) => names.bind(0, '127.0.0.1', () => done())))
afterAll(() => void names.close())

test('the domain is asked about once, and again when that was long ago or somebody wants it', async () => {
  const { db } = madeUpAccount()
  const nameServer = `127.0.0.1:${names.address().port}`
  const engine = madeUpEngine(db, { nameServer, sendsFrom: ['192.0.2.7'] })
  const ask = (anew = false) => domainCheck(db, engine.time.now, anew)
  expect(ask()).toBeNull()
  expect(await checkDomains(engine)).toBe(true)
  expect(await checkDomains(engine)).toBe(false)
  expect(ask()!.check).toMatchObject({ spf: { verdict: 'missing' }, dkim: { verdict: 'missing' } })
  const domain = 'galewright.example'
  const records = recordsToPublish({ domain, ips: ['192.0.2.7'], ...signingKey(db) })
  writeFileSync(
    zone,
    JSON.stringify(
      Object.fromEntries(Object.values(records).map(({ name, value }) => [name, { TXT: [value] }])),
    ),
  )
  ask()
  expect(await checkDomains(engine)).toBe(false)
  ask(true)
  await checkDomains(engine)
  expect(ask()!.check).toMatchObject({
    spf: { verdict: 'good' },
    dkim: { verdict: 'good' },
    dmarc: { verdict: 'good', policy: 'none' },
  })
  engine.time.now += 7 * HOUR
  ask()
  expect(await checkDomains(engine)).toBe(true)
})

test('where nobody answers, nothing is claimed', async () => {
  const { db } = madeUpAccount()
  // A port at which nothing listens.
  const socket = createSocket('udp4')
  await new Promise<void>((done) => socket.bind(0, '127.0.0.1', done))
  const nameServer = `127.0.0.1:${socket.address().port}`
  await new Promise<void>((done) => socket.close(done))
  const engine = madeUpEngine(db, { nameServer })
  domainCheck(db, engine.time.now)
  await checkDomains(engine)
  expect(domainCheck(db, engine.time.now)!.check.spf.verdict).toBe('unknown')
}, 30_000)

test('mail goes out from where it is set, or from the mail server', async () => {
  const smtpUrl = 'smtp://127.0.0.1:25'
  expect(await sendingAddresses({ sendsFrom: ['192.0.2.7'], smtpUrl })).toEqual(['192.0.2.7'])
  expect(await sendingAddresses({ sendsFrom: [], smtpUrl })).toEqual(['127.0.0.1'])
  expect(await sendingAddresses({ sendsFrom: [], smtpUrl: null })).toEqual([])
})
