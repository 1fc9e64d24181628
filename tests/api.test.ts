import { readdirSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readAccount } from '../database/account'
import { mailingById } from '../database/mailings'
import { newBlock, rowOf } from '../core/letters/document'
import { install, signIn, type Installation } from './installation'
import { addSubscribers, dueMailing } from './subscribers'

/** What the application's own routes do with what they should not be asked. */
let satchel: Installation
let ask: Awaited<ReturnType<typeof signIn>>

beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 5, 'silent.example')
  await satchel.start('web')
  ask = await signIn(satchel)
})
afterAll(() => satchel.stop())

/** Every handler under server/api, as its method and a path. */
const routes = readdirSync('server/api', { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts'))
  .map((file) => {
    const [, path, method] = /^(.*)\.(get|post|put|delete)\.ts$/.exec(file)!
    return {
      method: method!.toUpperCase(),
      path: `/api/${path!.replace(/\/?index$/, '').replaceAll(/\[\w+\]/g, '1')}`,
    }
  })
const open = [
  'GET /api/session',
  'POST /api/session',
  'POST /api/owner',
  'POST /api/session/reset',
  'GET /api/health',
  'GET /api/v1/openapi.json',
]

test('there are handlers to ask', () => expect(routes.length).toBeGreaterThan(30))

test.each(routes.filter(({ method, path }) => !open.includes(`${method} ${path}`)))(
  '$method $path answers nobody who is not signed in',
  async ({ method, path }) => {
    const headers = { 'sec-fetch-site': 'same-origin' }
    const answer = await fetch(`${satchel.url}${path}`, { method, headers })
    expect(answer.status).toBe(401)
    expect(answer.headers.getSetCookie()).toEqual([])
    expect(await answer.text()).not.toContain('silent.example')
  },
)

test('a cookie that no session has opens nothing', async () => {
  const answer = await fetch(`${satchel.url}/api/people`, {
    headers: { cookie: 'satchel=Fe26.2**0f**forged' },
  })
  expect(answer.status).toBe(401)
})

test('health says what is alive: the engine does not run here', async () => {
  expect((await ask('GET', '/api/health')).body).toMatchObject({
    web: true,
    database: true,
    engine: false,
  })
})

test.each([
  ['/api/people/999999'],
  ['/api/people/abc'],
  ['/api/mailings/999999'],
  ['/api/mailings/-1'],
  ['/api/mailings/1e9'],
  ['/api/imports/999999'],
  ['/api/mailings/999999/results'],
  ['/api/mailings/999999/proof'],
  ['/api/mailings/999999/plan'],
])('%s is not there, and says so', async (path) => {
  const { status, body } = await ask('GET', path)
  expect(status).toBe(404)
  expect(body.message).toMatch(/\w+ .*\./)
})

test.each([
  ['POST', '/api/lists', {}, 'name'],
  ['POST', '/api/lists', { name: 'x'.repeat(101) }, 'name'],
  ['POST', '/api/lists', { name: 'Two\nlines' }, 'name'],
  ['PUT', '/api/account', { name: '' }, 'name'],
  ['POST', '/api/clock', { rate: 7 }, 'rate'],
  ['POST', '/api/clock', { jumpTo: 'tomorrow' }, 'jumpTo'],
  ['POST', '/api/imports', { file: '../../etc/passwd' }, 'file'],
  ['POST', '/api/feeds', { url: 'javascript:x()' }, 'url'],
])('%s %s with %j answers 422 and names %s', async (method, path, body, field) => {
  const answer = await ask(method, path, body)
  expect(answer.status).toBe(422)
  expect(Object.keys(answer.body.data.fields)).toContain(field)
})

test.each([
  ['/api/lists', { name: { toString: [] } }, 'name.toString'],
  ['/api/session', { address: [{ toString: 1 }], password: 'x' }, 'address[0].toString'],
  ['/api/session', { address: nested(1_000), password: 'x' }, 'nested too deep'],
])('%s, with what nobody can read (%#), answers 422 and says why', async (path, body, at) => {
  const answer = await ask('POST', path, body)
  expect([answer.status, answer.body.message]).toEqual([422, expect.stringContaining(at)])
})

test('an account is not widened by what its form does not have', async () => {
  const before = (await ask('GET', '/api/account')).body
  const answer = await ask('PUT', '/api/account', {
    name: 'Galewright Kites',
    sender_name: 'Galewright',
    sender_address: 'hello@galewright.example',
    postal_address: '1 Slipway',
    zone: 'Europe/London',
    pace_per_minute: null,
    token_key: 'ff',
    dkim_private_key: 'mine',
    ...{ created_at: 5, version: before.version },
  })
  expect(answer.status).toBe(200)
  const row = readAccount(satchel.db)!
  expect(row.sender_name).toBe('Galewright')
  expect(row.token_key).toMatch(/^[0-9a-f]{64}$/)
  expect(row.dkim_private_key).toContain('PRIVATE KEY')
  expect(before).not.toHaveProperty('token_key')
  expect(JSON.stringify(before)).not.toContain('PRIVATE KEY')
})

test('a plan holds only what a plan may; a test that is not under way has no winner', async () => {
  const { body: made } = await ask('POST', '/api/mailings')
  const path = `/api/mailings/${made.id}/plan`
  const odd = { pace: 'yesterday', holdout: 7, perMinute: -3, test: { variants: [{ subject: 5 }] } }
  const { version } = (await ask('GET', path)).body
  const { body } = await ask('PUT', path, { plan: odd, version })
  expect(body.plan).toMatchObject({ pace: 'at-once', holdout: 0.5, perMinute: 1 })
  expect(body.plan.test.variants).toHaveLength(2)
  expect(body.problems).toEqual(['Variant B has no subject yet.'])
  expect((await ask('GET', path)).body.plan).toEqual(body.plan)
  const itself = { test: { of: 'letter', variants: [{}, { mailingId: made.id }] } }
  const over = { plan: itself, version: body.version }
  expect((await ask('PUT', path, over)).status).toBe(409)
  // Whoever saw another plan changes nothing, and is told.
  expect((await ask('PUT', path, { ...over, version })).status).toBe(412)
  expect((await ask('PUT', path, { plan: odd })).status).toBe(422)
  const winner = await ask('POST', `/api/mailings/${made.id}/winner`, { variant: 1 })
  expect(winner.status).toBe(409)
  const passed = await ask('POST', `/api/mailings/${made.id}/overrule`, { reason: 'Why not' })
  expect(passed.status).toBe(200)
})

test('two who write one letter: the second is told, and nothing is lost', async () => {
  const { body: made } = await ask('POST', '/api/mailings')
  const { body: read } = await ask('GET', `/api/mailings/${made.id}`)
  const letter = (subject: string, version: number) => ({
    subject,
    previewText: '',
    document: read.letter.document,
    version,
  })
  const path = `/api/mailings/${made.id}/letter`
  expect((await ask('PUT', path, letter('First', 1))).body.version).toBe(2)
  const late = await ask('PUT', path, letter('Second', 1))
  expect(late.status).toBe(412)
  expect((await ask('GET', `/api/mailings/${made.id}`)).body.letter.subject).toBe('First')
  expect((await ask('PUT', path, letter('Second', 2))).body.version).toBe(3)
})

test('what a letter cannot hold is dropped when it is saved', async () => {
  const { body: made } = await ask('POST', '/api/mailings')
  const button = { ...newBlock('button', 'b'), label: 'Go', href: 'javascript:alert(1)' }
  await ask('PUT', `/api/mailings/${made.id}/letter`, {
    subject: 'Wind',
    previewText: '',
    version: 1,
    document: {
      version: 1,
      rows: [
        rowOf(button as never),
        {
          id: 'x',
          columns: [{ share: 1, blocks: [{ id: 's', kind: 'script', text: 'alert(1)' }] }],
        },
      ],
    },
  })
  const { body } = await ask('GET', `/api/mailings/${made.id}`)
  expect(JSON.stringify(body.letter)).not.toMatch(/javascript:|alert/)
  expect(body.letter.document.rows).toHaveLength(1)
})

test('a mailing that went out can be neither deleted nor sent again', async () => {
  const id = dueMailing(satchel.db)
  satchel.db.sqlite
    .prepare("update mailings set state = 'sent', started_at = 1 where id = ?")
    .run(id)
  expect((await ask('DELETE', `/api/mailings/${id}`)).status).toBe(409)
  expect((await ask('POST', `/api/mailings/${id}/dispatch`, { at: null })).status).toBe(409)
  expect((await ask('POST', `/api/mailings/${id}/pause`)).status).toBe(409)
  expect(mailingById(satchel.db, id)!.state).toBe('sent')
})

test('a draft can be copied and deleted; its copy is a draft with a letter of its own', async () => {
  const { body: made } = await ask('POST', '/api/mailings')
  const { body: copy } = await ask('POST', `/api/mailings/${made.id}/duplicate`)
  const [first, second] = [mailingById(satchel.db, made.id)!, mailingById(satchel.db, copy.id)!]
  expect(second).toMatchObject({ state: 'draft' })
  expect(second.letter_id).not.toBe(first.letter_id)
  expect((await ask('DELETE', `/api/mailings/${made.id}`)).status).toBe(200)
  expect(mailingById(satchel.db, made.id)).toBeUndefined()
  expect(mailingById(satchel.db, copy.id)).toBeDefined()
})

test.each([
  ['an empty file', new Uint8Array()],
  ['text', Buffer.from('This is no picture.')],
  ['an SVG', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>')],
  ['a broken PNG', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')],
])('a picture that is %s is refused with a reason', async (_, bytes) => {
  const { status, body } = await ask('POST', '/api/pictures?name=x.png', bytes)
  expect(status).toBe(422)
  expect(body.message).toMatch(/\.$/)
})

test('finding looks at names, addresses and mailings, and takes any text', async () => {
  const { body: made } = await ask('POST', '/api/mailings')
  await ask('PUT', `/api/mailings/${made.id}`, { name: 'Lantern walk' })
  const found = (await ask('GET', '/api/find?q=lantern')).body
  expect(JSON.stringify(found)).toContain('Lantern walk')
  expect(JSON.stringify((await ask('GET', '/api/find?q=silent.example')).body)).toContain(
    '@silent.example',
  )
  for (const odd of ['%', '_', "'", '"', '\\', '', ' ', '%00', 'x'.repeat(3000)])
    expect((await ask('GET', `/api/find?q=${encodeURIComponent(odd)}`)).status).toBe(200)
})

function nested(deep: number): unknown {
  return deep === 0 ? [] : [nested(deep - 1)]
}
