import { generateKeyPairSync } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import cases from './cases.json'
import { judgeKey } from './dkim-key'
import { findDmarc } from './dmarc'
import { evaluateSpf } from './spf'

/**
 * Each case with the verdict that RFC 7208, 6376 and 7489 ask for. Where `agreed`, two independent implementations say the
 * same; bin/peers/authentication.py asks them.
 */
type Zone = Record<string, 'SERVFAIL' | Record<string, string[]>>

function names(zone: Zone) {
  return (name: string, type: string): Promise<unknown> => {
    const fault = (code: string) => Promise.reject(Object.assign(new Error(code), { code }))
    const found = zone[name.toLowerCase()]
    if (found === undefined) return fault('ENOTFOUND')
    if (found === 'SERVFAIL') return fault('ESERVFAIL')
    const values = found[type]
    if (!values) return fault('ENODATA')
    if (type === 'TXT') return Promise.resolve(values.map((text) => text.match(/.{1,255}/g)))
    if (type === 'MX')
      return Promise.resolve(values.map((exchange) => ({ exchange, priority: 10 })))
    return Promise.resolve(values)
  }
}

const publicKey = () =>
  generateKeyPairSync('rsa', { modulusLength: 2048 })
    .publicKey.export({ type: 'spki', format: 'der' })
    .toString('base64')
const [key, other] = [publicKey(), publicKey()]
const fill = (record: string) =>
  record
    .replaceAll('{key}', key)
    .replaceAll('{other}', other)
    .replaceAll('{half}', key.slice(0, key.length / 2))

describe('SPF', () => {
  test.each(cases.spf)('$name: $verdict', async ({ zone, ip, verdict }) => {
    const found = await evaluateSpf(cases.domain, ip, names(zone as unknown as Zone))
    expect(found.result).toBe(verdict)
  })
})

describe('a DKIM key', () => {
  test.each(cases.dkim)('$name: $verdict', ({ records, verdict }) => {
    const verifies = records.length > 0 && judgeKey(records.map(fill), key).verifies
    expect(verifies).toBe(verdict)
  })
})

describe('DMARC', () => {
  test.each(cases.dmarc)('$name: $verdict', async ({ zone, domain, passes, verdict }) => {
    const { result, policy } = await findDmarc(domain, names(zone as unknown as Zone))
    const told = result === 'found' ? `${passes ? 'pass' : 'fail'} ${policy}` : result
    expect(told).toBe(verdict)
  })
})

test('more than sixty of them are what two others say', () => {
  const all = [...cases.spf, ...cases.dkim, ...cases.dmarc]
  expect(all.filter(({ agreed }) => agreed).length).toBeGreaterThanOrEqual(60)
})
