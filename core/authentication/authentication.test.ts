import { expect, test } from 'vitest'
import { checkDomain, recordsToPublish, type SendingDomain } from '.'

const domain = 'galewright.example'
const of: SendingDomain = { domain, ips: ['192.0.2.7'], selector: 's1', publicKey: 'MIIBkey' }
const dkimName = `s1._domainkey.${domain}`

/** A name server that knows these texts and addresses, and fails for names that begin with "broken". */
function names(texts: Record<string, string[]>, addresses: Record<string, string[]> = {}) {
  return (name: string, type: string): Promise<unknown> => {
    const fault = (code: string) => Promise.reject(Object.assign(new Error(code), { code }))
    if (texts[name]?.[0] === 'broken') return fault('ESERVFAIL')
    if (type === 'TXT')
      return texts[name]
        ? Promise.resolve(texts[name].map((text) => text.match(/.{1,100}/g) ?? ['']))
        : fault('ENOTFOUND')
    if (type === 'A' && addresses[name]) return Promise.resolve(addresses[name])
    return fault('ENODATA')
  }
}
const check = (texts: Record<string, string[]>, addresses?: Record<string, string[]>, more = {}) =>
  checkDomain({ ...of, ...more }, names(texts, addresses))
const verdicts = async (...given: Parameters<typeof check>) => {
  const { spf, dkim, dmarc } = await check(...given)
  return [spf.verdict, dkim.verdict, dmarc.verdict]
}
const good = {
  [domain]: ['site-check=1', 'v=spf1 ip4:192.0.2.0/24 -all'],
  [dkimName]: ['v=DKIM1; k=rsa; p=MIIB key'],
  [`_dmarc.${domain}`]: ['v=DMARC1; p=reject; rua=mailto:d@x.example'],
}

test('with all three records in order everything is good, and the policy is told', async () => {
  const found = await check(good)
  expect([found.spf.verdict, found.dkim.verdict, found.dmarc.verdict]).toEqual([
    'good',
    'good',
    'good',
  ])
  expect(found.dmarc.policy).toBe('reject')
})

test('with none it says what to publish, and publishing just that makes it good', async () => {
  expect(await verdicts({})).toEqual(['missing', 'missing', 'missing'])
  const { spf, dkim, dmarc } = await check({})
  const published = Object.fromEntries(
    [spf, dkim, dmarc].map(({ publish }) => [publish.name, [publish.value]]),
  )
  expect(await verdicts(published)).toEqual(['good', 'good', 'good'])
})

test('a record that leaves us out is bad, and what to publish keeps the others in it', async () => {
  const other = { ...good, [domain]: ['v=spf1 include:mail.partner.example ~all'] }
  const known = { ...other, 'mail.partner.example': ['v=spf1 ip4:198.51.100.1 -all'] }
  const found = await check(known)
  expect(found.spf).toMatchObject({
    verdict: 'bad',
    publish: { value: 'v=spf1 include:mail.partner.example ip4:192.0.2.7 ~all' },
  })
  // A good signature is enough for DMARC.
  expect(found.dmarc.verdict).toBe('good')
  expect(await verdicts({ ...known, [dkimName]: ['v=DKIM1; p=other'] })).toEqual([
    'bad',
    'bad',
    'bad',
  ])
})

test('includes and addresses of names are followed (RFC 7208)', async () => {
  const partner = {
    ...good,
    [domain]: ['v=spf1 include:mail.partner.example -all'],
    'mail.partner.example': ['v=spf1 a:out.partner.example -all'],
  }
  expect(await verdicts(partner, { 'out.partner.example': ['192.0.2.7'] })).toEqual([
    'good',
    'good',
    'good',
  ])
  expect((await verdicts(partner, { 'out.partner.example': ['192.0.2.8'] }))[0]).toBe('bad')
})

test('a key that was revoked, and a record of DMARC that says nothing', async () => {
  const found = await check({ ...good, [dkimName]: ['v=DKIM1; p='] })
  expect(found.dkim).toMatchObject({ verdict: 'bad', words: expect.stringMatching(/revoked/) })
  expect((await check({ ...good, [`_dmarc.${domain}`]: ['v=DMARC1; rua=x'] })).dmarc.verdict).toBe(
    'bad',
  )
})

test('where no name server answers nothing is claimed', async () => {
  const broken = { [domain]: ['broken'], [dkimName]: ['broken'], [`_dmarc.${domain}`]: ['broken'] }
  expect(await verdicts(broken)).toEqual(['unknown', 'unknown', 'unknown'])
  expect((await verdicts(good, {}, { ips: [] }))[0]).toBe('unknown')
})

test('an address of the sixth version has a word of its own', () => {
  const { spf } = recordsToPublish({ ...of, ips: ['2001:db8::1'] }, 'v=spf1 mx')
  expect(spf.value).toBe('v=spf1 mx ip6:2001:db8::1')
})
