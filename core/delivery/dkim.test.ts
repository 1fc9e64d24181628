import { createPublicKey, generateKeyPairSync, sign } from 'node:crypto'
import fc from 'fast-check'
import { dkimVerify } from 'mailauth/lib/dkim/verify.js'
import { expect, test } from 'vitest'
import { signMessage } from './dkim'
import { rawMessage } from './raw-message'

const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 })
const publicKey = createPublicKey(privateKey)
  .export({ type: 'spki', format: 'der' })
  .toString('base64')
const by = { domain: 'galewright.example', selector: 's1' }
const at = Date.UTC(2026, 10, 23, 9, 40)
const signing = async (raw: string) =>
  (
    await signMessage(
      rawMessage(raw),
      by,
      (text) => Promise.resolve(sign('sha256', Buffer.from(text), privateKey).toString('base64')),
      at,
    )
  ).toString('latin1')

/** What a receiver that knows nothing of ours makes of it. */
async function verdict(raw: string): Promise<string> {
  const { results } = await dkimVerify(Buffer.from(raw, 'latin1'), {
    curTime: new Date(at + 60_000),
    resolver: (name: string) =>
      name === 's1._domainkey.galewright.example'
        ? Promise.resolve([[`v=DKIM1; k=rsa; p=${publicKey}`]])
        : Promise.reject(Object.assign(new Error(), { code: 'ENOTFOUND' })),
  } as never)
  return results[0]?.status.result ?? 'none'
}
const message = (subject: string, body: string) =>
  [
    'From: Galewright Kites <hello@galewright.example>',
    'To: "Tove" <tove@inkpost.example>',
    `Subject: ${subject}`,
    'List-Unsubscribe: <https://mail.galewright.example/u/x>,',
    '\t<mailto:leave@galewright.example>',
    'List-Unsubscribe-Post: List-Unsubscribe=One-Click',
    'X-Other: not signed',
    '',
    body,
  ].join('\r\n')

const line = fc.string({ unit: fc.constantFrom('a', 'Z', ' ', '\t', '=', '-', '9'), maxLength: 70 })

test('whatever is in it, an independent verifier takes the signature', async () => {
  await fc.assert(
    fc.asyncProperty(line, fc.array(line, { maxLength: 8 }), async (subject, lines) => {
      expect(await verdict(await signing(message(subject, `${lines.join('\r\n')}\r\n`)))).toBe(
        'pass',
      )
    }),
    { numRuns: 60 },
  )
  expect(await verdict(await signing(message('No body', '')))).toBe('pass')
})

test('what is changed on the way fails: the body, what readers see, the way to leave', async () => {
  const raw = await signing(message('Wind', 'Five days of force 5.\r\n'))
  for (const [was, is] of [
    ['force 5', 'force 9'],
    ['Subject: Wind', 'Subject: Prize'],
    ['/u/x', '/u/y'],
    ['One-Click', 'Two-Click'],
  ] as const)
    expect(await verdict(raw.replace(was, is))).not.toBe('pass')
  // What is not signed may change, and so may white space in fields.
  expect(await verdict(raw.replace('not signed', 'another'))).toBe('pass')
  expect(await verdict(raw.replace('Subject: Wind', 'Subject:   Wind '))).toBe('pass')
})

test('its lines are no longer than a mail program likes, and none begins with a dot', async () => {
  const raw = await signing(message('Wind', 'Five days.\r\n'))
  const head = raw.slice(0, raw.indexOf('From:')).split('\r\n')
  for (const one of head) {
    expect(one.length).toBeLessThanOrEqual(150)
    expect(one.startsWith('.')).toBe(false)
  }
  expect(raw).toContain('list-unsubscribe:list-unsubscribe-post')
})
