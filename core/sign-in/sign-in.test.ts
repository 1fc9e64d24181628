import fc from 'fast-check'
import { expect, test } from 'vitest'
import { HOUR, MINUTE } from '../time'
import {
  comesFromHere,
  countedFor,
  failedAgain,
  FREE,
  plainRecoveryCode,
  recoveryCodes,
  totpAddress,
  totpCode,
  totpSecret,
  totpStep,
  waitAfter,
  type Failures,
} from '.'

// The secret of RFC 6238, appendix B, for SHA-1; codes of six digits are the last six of its eight.
const rfc = totpSecret(new TextEncoder().encode('12345678901234567890'))

test.each([
  [59, '287082'],
  [1_111_111_109, '081804'],
  [1_234_567_890, '005924'],
  [20_000_000_000, '353130'],
])('at %d s the code is that of RFC 6238', (seconds, code) => {
  expect(totpCode(rfc, seconds * 1_000)).toBe(code)
  expect(totpStep(rfc, code, seconds * 1_000, null)).toBe(Math.floor(seconds / 30))
})

test('a code is taken one step early or late, never two, and never a second time', () => {
  const now = 1_700_000_010_000
  const step = Math.floor(now / 30_000)
  for (const away of [-1, 0, 1])
    expect(totpStep(rfc, totpCode(rfc, now + away * 30_000), now, null)).toBe(step + away)
  for (const away of [-2, 2])
    expect(totpStep(rfc, totpCode(rfc, now + away * 30_000), now, null)).toBeNull()
  expect(totpStep(rfc, totpCode(rfc, now), now, step)).toBeNull()
  expect(totpStep(rfc, totpCode(rfc, now - 30_000), now, step)).toBeNull()
  for (const wrong of ['', '12345', '1234567', 'abcdef', '000000 '])
    expect(totpStep(rfc, wrong, now, null)).toBeNull()
})

test('what an authenticator scans says whose it is', () => {
  expect(totpAddress(rfc, 'wren@galewright.example')).toMatch(
    /^otpauth:\/\/totp\/Satchel:wren%40galewright\.example\?.*secret=GEZDGNBV/,
  )
})

test('recovery codes are as they are typed, in whatever way', () => {
  const codes = recoveryCodes(Uint8Array.from({ length: 100 }, (_, i) => (i * 37) % 256))
  expect(new Set(codes).size).toBe(10)
  for (const code of codes) {
    expect(code).toMatch(/^[2-9a-z]{4}-[2-9a-z]{4}-[2-9a-z]{2}$/)
    expect(plainRecoveryCode(` ${code.toUpperCase().replaceAll('-', ' ')} `)).toBe(
      plainRecoveryCode(code),
    )
  }
})

test('failures slow whoever makes them: free ones, then each doubles the wait, up to a quarter of an hour', () => {
  let failures: Failures | undefined
  const waits: number[] = []
  let now = 0
  for (let n = 0; n < 20; n++) {
    failures = failedAgain(failures, now)
    const wait = waitAfter(failures, FREE.address, now)
    waits.push(wait)
    now += wait
  }
  expect(waits.slice(0, 6)).toEqual([0, 0, 0, 0, 2_000, 4_000])
  expect(Math.max(...waits)).toBe(15 * MINUTE)
  expect(waits).toEqual(waits.toSorted((a, b) => a - b))
  expect(waitAfter(failures, FREE.address, failures!.last + HOUR)).toBe(0)
  expect(failedAgain(failures, failures!.last + HOUR).count).toBe(1)
})

test('others’ failures never slow a device that has signed in before, nor another network', () => {
  const address = 'wren@galewright.example'
  const theirs = countedFor({ address, network: '203.0.113', device: null })
  const same = (other: Parameters<typeof countedFor>[0]) =>
    countedFor(other).filter(({ key }) => theirs.some((one) => one.key === key))
  expect(same({ address, network: '203.0.113', device: 'known' })).toEqual([])
  expect(same({ address, network: '198.51.100', device: null })).toEqual([])
  expect(same({ address: 'x@y.example', network: '203.0.113', device: null })).toHaveLength(1)
})

const url = 'https://mail.galewright.example'
const host = 'mail.galewright.example'
test.each([
  [true, { site: 'same-origin', origin: undefined }],
  [true, { site: 'same-origin', origin: url }],
  [true, { site: undefined, origin: url }],
  [true, { site: undefined, origin: `https://${host}` }],
  [false, { site: undefined, origin: undefined }],
  [false, { site: 'same-site', origin: url }],
  [false, { site: 'cross-site', origin: url }],
  [false, { site: 'none', origin: undefined }],
  [false, { site: 'same-origin', origin: 'https://evil.example' }],
  [false, { site: undefined, origin: 'null' }],
  [false, { site: undefined, origin: 'https://mail.galewright.example.evil.example' }],
  [false, { site: undefined, origin: 'https://galewright.example' }],
])('whether it comes from here is %s for %o', (is, comes) =>
  expect(comesFromHere({ ...comes, host, url })).toBe(is),
)

test('nothing from elsewhere passes, whatever its host is called', () => {
  fc.assert(
    fc.property(fc.webUrl(), (elsewhere) => {
      fc.pre(new URL(elsewhere).host !== host)
      const { origin } = new URL(elsewhere)
      expect(comesFromHere({ site: undefined, origin, host, url })).toBe(false)
    }),
  )
})
