import fc from 'fast-check'
import { expect, test } from 'vitest'
import { checkDomain, mendDmarc, mendSpf, recordsToPublish, type SendingDomain } from '.'

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
    publish: { value: 'v=spf1 ip4:192.0.2.7 include:mail.partner.example ~all' },
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
  expect(recordsToPublish({ ...of, ips: ['2001:db8::1'] }).spf.value).toBe(
    'v=spf1 ip6:2001:db8::1 -all',
  )
  expect(mendSpf(['v=spf1 mx'], ['2001:db8::1'])).toBe('v=spf1 ip6:2001:db8::1 mx ~all')
})

test.each([
  [['v=spf1 +all'], 'lets everybody send', 'v=spf1 ip4:192.0.2.7 ~all'],
  [
    ['v=spf1 a:a.x.example -all', 'v=spf1 include:b.x.example ~all'],
    'more than one SPF record',
    'v=spf1 ip4:192.0.2.7 a:a.x.example include:b.x.example -all',
  ],
  [['v=spf1 ip:192.0.2.7 mx -all'], '“ip” is no word', 'v=spf1 ip4:192.0.2.7 mx -all'],
  [
    ['v=spf1 include:gone.x.example -all'],
    'leads to gone.x.example',
    'v=spf1 ip4:192.0.2.7 include:gone.x.example -all',
  ],
  [
    ['v=spf1 redirect=b.x.example'],
    'does not let 192.0.2.7',
    'v=spf1 ip4:192.0.2.7 redirect=b.x.example',
  ],
  [
    ['v=spf1 a:1.x.example a:2.x.example a:3.x.example a:4.x.example ~all'],
    'names that it asks for are not there',
    'v=spf1 ip4:192.0.2.7 a:1.x.example a:2.x.example a:3.x.example a:4.x.example ~all',
  ],
])('%j is bad, and what to publish instead is good', async (records, words, value) => {
  const there = { 'b.x.example': ['v=spf1 ip4:198.51.100.4 -all'] }
  const { spf } = await check({ ...good, ...there, [domain]: records })
  expect(spf).toMatchObject({ verdict: 'bad', publish: { value }, found: records.join('\n') })
  expect(spf.words).toContain(words)
  const after = await check({ ...good, ...there, [domain]: [value] })
  expect(after.spf.verdict).toBe('good')
})

test('what to publish is good whatever stands there', async () => {
  const term = fc.oneof(
    fc.constantFrom('mx', 'a', 'ptr', '+all', '-all', '?all', 'ip:1', 'ip4:1.2.3.4/40', 'ip6:::1'),
    fc.constantFrom('include:none.example', 'redirect=none.example', 'exp=', 'a:', 'x=%{', 'ip4:'),
    fc.string({ maxLength: 8 }).map((text) => text.replaceAll(/\s/g, '')),
  )
  const record = fc.array(term, { maxLength: 14 }).map((terms) => ['v=spf1', ...terms].join(' '))
  await fc.assert(
    fc.asyncProperty(fc.array(record, { minLength: 1, maxLength: 3 }), async (records) => {
      const { spf } = await check({ ...good, [domain]: records })
      const after = await check({ ...good, [domain]: [spf.publish.value] })
      expect([spf.publish.value, after.spf.verdict]).toEqual([spf.publish.value, 'good'])
    }),
    { numRuns: 300 },
  )
})

test.each([
  [
    ['v=dmarc1; p=reject'],
    'in capitals',
    'v=DMARC1; p=reject; rua=mailto:dmarc@galewright.example',
  ],
  [
    ['v=DMARC1; p=none; rua=mailto:d@x.example', 'v=DMARC1; p=quarantine'],
    'more than one DMARC record',
    'v=DMARC1; p=quarantine; rua=mailto:d@x.example',
  ],
  [
    ['v=DMARC1; p=refuse'],
    'a policy that there is not',
    'v=DMARC1; p=none; rua=mailto:dmarc@galewright.example',
  ],
  [
    ['v=DMARC1; p=reject; sp=x; adkim=s'],
    'a policy that there is not',
    'v=DMARC1; p=reject; rua=mailto:dmarc@galewright.example; adkim=s',
  ],
])('of %j it says what is wrong, and proposes one that is right', async (records, words, value) => {
  const name = `_dmarc.${domain}`
  const { dmarc } = await check({ ...good, [name]: records })
  expect(dmarc).toMatchObject({ verdict: 'bad', publish: { value } })
  expect(dmarc.words).toContain(words)
  expect(mendDmarc(records, domain)).toBe(value)
  expect((await check({ ...good, [name]: [value] })).dmarc.verdict).toBe('good')
})

test('a policy for a part of it, and one of the organisation, are told as they are', async () => {
  const told = async (name: string, record: string, of = domain) =>
    (
      await checkDomain(
        { domain: of, ips: ['192.0.2.7'], selector: 's1', publicKey: 'MIIBkey' },
        names({ [of]: ['v=spf1 ip4:192.0.2.7 -all'], [name]: [record] }),
      )
    ).dmarc
  expect((await told(`_dmarc.${domain}`, 'v=DMARC1; p=reject; pct=20')).words).toContain(
    'p=reject, for 20% of it',
  )
  expect(
    await told('_dmarc.example.com', 'v=DMARC1; p=reject; sp=none', 'news.example.com'),
  ).toMatchObject({
    policy: 'none',
    words: expect.stringContaining('by the record of example.com'),
  })
})

test('a key that is being tried is good, and says so; two texts are none', async () => {
  const tried = await check({ ...good, [dkimName]: ['v=DKIM1; t=y; p=MIIBkey'] })
  expect(tried.dkim).toMatchObject({ verdict: 'good', words: expect.stringContaining('t=y') })
  const two = await check({ ...good, [dkimName]: ['v=DKIM1; p=MIIBkey', 'v=DKIM1; p=MIIBkey'] })
  expect(two.dkim.verdict).toBe('bad')
})
