import { generateKeyPairSync } from 'node:crypto'
import { dkimSign } from 'mailauth/lib/dkim/sign.js'
import { expect, test } from 'vitest'
import { openFiling } from './filing'
import { providers, type Provider } from './providers'

const { publicKey, privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 })
const key = publicKey.export({ type: 'spki', format: 'der' }).toString('base64')
const zone: Record<string, string> = {
  'galewright.example': 'v=spf1 ip4:127.0.0.1 -all',
  's1._domainkey.galewright.example': `v=DKIM1; k=rsa; p=${key}`,
  '_dmarc.galewright.example': 'v=DMARC1; p=quarantine',
}
const asked: string[] = []
const resolver = (name: string, type: string) => {
  asked.push(name)
  return type === 'TXT' && zone[name]
    ? Promise.resolve([[zone[name]]])
    : Promise.reject(Object.assign(new Error('none'), { code: 'ENOTFOUND' }))
}
const called = (name: string) => providers.find((one) => one.name === name)!
const [patient, strict] = [called('Harbourmail'), called('Workdesk')] as [Provider, Provider]

const plain = (subject: string, body: string, more: string[] = []) =>
  [
    'From: Galewright <hello@galewright.example>',
    'To: tove@workdesk.example',
    `Subject: ${subject}`,
    'Message-ID: <1@galewright.example>',
    'Date: Mon, 23 Nov 2026 09:00:00 +0000',
    'List-Unsubscribe: <mailto:hello@galewright.example>',
    'MIME-Version: 1.0',
    ...more,
    'Content-Type: text/html; charset=utf-8',
    '',
    body,
    '',
  ].join('\r\n')
const longEnough = `<p>${'The wind is back. '.repeat(20)}</p>`

async function filed(source: string, provider: Provider, { signed = true, ip = '127.0.0.1' } = {}) {
  const by = {
    signingDomain: 'galewright.example',
    selector: 's1',
    privateKey: privateKey.export({ type: 'pkcs8', format: 'pem' }).toString(),
  }
  // Its types ask for one signature; what it reads is a list of them. Without a time of ours it reads the clock twice, and
  // what is signed while the second changes does not hold.
  const signTime = new Date()
  const { signatures } = signed
    ? await dkimSign(source, { signTime, signatureData: [by] } as never)
    : { signatures: '' }
  const mail = { returnPath: 'b-1@galewright.example', address: 'tove@workdesk.example', ip }
  return openFiling(resolver).file({ ...mail, source: signatures + source }, provider)
}

test('a signed letter from where its domain says goes to the inbox everywhere', async () => {
  for (const provider of providers) {
    const { folder, source } = await filed(plain('Wind notes', longEnough), provider)
    expect([provider.name, folder]).toEqual([provider.name, 'inbox'])
    expect(source).toContain(
      `Authentication-Results: mx.${provider.domain}; spf=pass; dkim=pass; dmarc=pass\r\n`,
    )
    expect(source).not.toContain('Filter-Notes')
  }
})

test('whoever only says to be somebody lands in junk: no signature, from elsewhere', async () => {
  const forged = { signed: false, ip: '192.0.2.7' }
  const { folder, source } = await filed(plain('Wind notes', longEnough), patient, forged)
  expect(folder).toBe('junk')
  expect(source).toMatch(/spf=fail; dkim=none; dmarc=fail/)
  expect(source).toContain('Filter-Notes: SPF fail (1); DKIM none (1); DMARC fail (3)')
})

test('loud words count, and the strict provider minds them first', async () => {
  const loud = plain('ACT NOW!! LAST CHANCE', `${longEnough}<p>Guaranteed.</p>`)
  expect((await filed(loud, patient)).folder).toBe('junk')
  const mild = plain('Act now: last chance', `${longEnough}<p>Guaranteed.</p>`)
  expect((await filed(mild, patient)).folder).toBe('inbox')
  const held = await filed(mild, strict)
  expect(held.folder).toBe('junk')
  expect(held.source).toContain('Filter-Notes: says act now, last chance, guaranteed (3)')
})

test('a provider remembers how a domain’s mail fared, and does not ask for each message', async () => {
  const filing = openFiling(resolver)
  const mail = {
    ...{ returnPath: 'b-1@galewright.example', address: 'tove@workdesk.example', ip: '127.0.0.1' },
    source: plain('Wind notes', longEnough),
  }
  asked.length = 0
  await filing.file(mail, strict)
  const first = asked.length
  await filing.file({ ...mail, address: 'ivo@workdesk.example' }, strict)
  expect(first).toBeGreaterThan(0)
  expect(asked).toHaveLength(first)
  await filing.file(mail, patient)
  expect(asked.length).toBeGreaterThan(first)
})
