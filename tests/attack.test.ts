import { request } from 'node:http'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { hashPassword } from '../cases/team'
import { permissionOf, permissions, roles, type Handler, type Role } from '../core/team'
import { totpCode } from '../core/sign-in'
import { HOUR } from '../core/time'
import { all, q, run } from '../database'
import { auditLog, addUser, changeRole } from '../database/account'
import { createMailing } from '../database/mailings'
import { install, setupCode, signIn, until, type Installation } from './installation'
import { addSubscribers, finishedLetter } from './subscribers'

/** Everything that somebody who means ill would try against an installation, over loopback alone. */
let satchel: Installation
const password = 'a fair wind for kites'
const ids = {} as Record<Role, number>
const addressOf = (role: Role) => `${role}@galewright.example`

beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 5, 'silent.example')
  const passwordHash = await hashPassword(password)
  for (const role of roles)
    ids[role] = addUser(satchel.db, { name: role, address: addressOf(role), passwordHash, role }, 0)
  await satchel.start('web')
})
afterAll(() => satchel.stop())

interface Answer {
  status: number
  body: any
  headers: Record<string, string | string[] | undefined>
  cookies: string[]
}

/** Asks as nobody's browser would have to: any headers, from any address of the loopback network. */
function ask(
  method: string,
  path: string,
  {
    headers = {},
    body,
    from = '127.0.0.1',
  }: { headers?: object; body?: unknown; from?: string } = {},
): Promise<Answer> {
  const { hostname, port } = new URL(satchel.url)
  const text = body === undefined ? '' : typeof body === 'string' ? body : JSON.stringify(body)
  return new Promise((done, failed) => {
    const asked = request(
      {
        ...{ hostname, port, method, path, localAddress: from },
        headers: {
          ...(text ? { 'content-type': 'application/json' } : {}),
          'content-length': Buffer.byteLength(text),
          ...headers,
        },
      },
      (answer) => {
        const parts: Buffer[] = []
        answer.on('data', (part: Buffer) => parts.push(part))
        answer.on('end', () => {
          const text = Buffer.concat(parts).toString()
          done({
            status: answer.statusCode!,
            body: /^[[{]/.test(text) ? JSON.parse(text) : text,
            headers: answer.headers,
            cookies: answer.headers['set-cookie'] ?? [],
          })
        })
      },
    )
    asked.on('error', failed)
    asked.end(text)
  })
}
const ours = { 'sec-fetch-site': 'same-origin' }
const cookieOf = ({ cookies }: Answer) => cookies.map((set) => set.split(';')[0]).join('; ')

async function enter(role: Role, more: object = {}, from?: string) {
  const body = { address: addressOf(role), password, ...more }
  return ask('POST', '/api/session', { headers: ours, body, ...(from ? { from } : {}) })
}
/** Somebody of a role, signed in by password; what they ask comes from our own pages. */
async function as(role: Role, from?: string) {
  const answer = await enter(role, {}, from)
  expect(answer.status).toBe(200)
  const cookie = cookieOf(answer)
  const asked = (method: string, path: string, body?: unknown, headers: object = {}) =>
    ask(method, path, {
      headers: { ...ours, cookie, ...headers },
      ...(body === undefined ? {} : { body }),
    })
  return Object.assign(asked, { cookie })
}
const sessions = () => all(satchel.db, q.selectFrom('sessions').selectAll())

test('the cookie of a session can be read by no script and goes to nobody else; a 401 sets none', async () => {
  const { cookies } = await enter('viewer')
  expect(cookies).toHaveLength(2)
  for (const cookie of cookies) expect(cookie).toMatch(/; Path=\/; HttpOnly; SameSite=Lax/)
  const stranger = await ask('GET', '/api/people', { headers: { cookie: 'satchel=guess' } })
  expect([stranger.status, stranger.cookies]).toEqual([401, []])
})

test('each sign-in has a session of its own, whatever the browser came with', async () => {
  const chosen = 'satchel=an-id-that-the-attacker-knows'
  const answer = await ask('POST', '/api/session', {
    headers: { ...ours, cookie: chosen },
    body: { address: addressOf('viewer'), password },
  })
  expect(cookieOf(answer)).not.toContain('attacker')
  expect((await ask('GET', '/api/people', { headers: { cookie: chosen } })).status).toBe(401)
})

const elsewhere = [
  { 'sec-fetch-site': 'cross-site' },
  { 'sec-fetch-site': 'same-site' },
  { 'sec-fetch-site': 'none' },
  { origin: 'https://evil.example' },
  { origin: 'null' },
  { origin: 'https://evil.example', 'sec-fetch-site': 'same-origin' },
  {},
]
test('no page from elsewhere changes anything by somebody’s session, nor signs anybody in or out', async () => {
  const owner = await as('owner')
  const before = sessions().length
  const changing = (Object.keys(permissions) as Handler[]).filter((one) => !one.startsWith('GET'))
  expect(changing.length).toBeGreaterThan(90)
  for (const handler of changing)
    for (const headers of handler.includes('token') || handler.includes('session')
      ? elsewhere
      : elsewhere.slice(0, 1)) {
      const [method, path] = handler.replace(/\[\w+\]/g, '1').split(' ') as [string, string]
      const answer = await ask(method, path, {
        headers: { ...headers, cookie: owner.cookie },
        body: { name: 'x' },
      })
      expect([answer.status, answer.cookies], `${handler} ${JSON.stringify(headers)}`).toEqual([
        403,
        [],
      ])
      expect(answer.body.message).toMatch(/did not come from a page of this Satchel/)
    }
  expect(sessions()).toHaveLength(before)
  expect((await owner('GET', '/api/tokens')).body).toHaveLength(1)
})

test.each(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x'])(
  'what a form can send (%s) is not taken for JSON',
  async (type) => {
    const owner = await as('owner')
    const body = '{"name":"Made by a form"}'
    expect((await owner('POST', '/api/lists', body, { 'content-type': type })).status).toBe(415)
  },
)

/** What a role may not is refused before the handler is reached, whatever its body. */
test.each(roles)('a %s gets what their role may, and nothing more', async (role) => {
  const asked = await as(role)
  for (const handler of Object.keys(permissions) as Handler[]) {
    const { least } = permissionOf(handler)
    if (least === 'anybody' || roles.indexOf(role) >= roles.indexOf(least)) continue
    const [method, path] = handler.replace(/\[\w+\]/g, '1').split(' ') as [string, string]
    const { status, body } = await asked(method, path)
    expect([status, body.message], handler).toEqual([
      403,
      `This takes the role “${least}”; yours is “${role}”. An owner can change that.`,
    ])
  }
  // What everybody may.
  for (const path of ['/api/people', '/api/today', '/api/me'])
    expect((await asked('GET', path)).status, path).toBe(200)
  expect((await asked('GET', '/api/users/1/../../tokens')).status).not.toBe(200)
})

test('an editor changes the settings, and not who letters come from', async () => {
  const editor = await as('editor')
  const { body: settings } = await editor('GET', '/api/account')
  const sender = await editor('PUT', '/api/account', { ...settings, sender_name: 'Somebody else' })
  expect([sender.status, sender.body.message]).toEqual([
    403,
    expect.stringMatching(/Only an owner/),
  ])
  const address = { ...settings, sender_address: 'x@evil.example' }
  expect((await editor('PUT', '/api/account', address)).status).toBe(403)
  const other = { ...settings, postal_address: '2 Slipway' }
  expect((await editor('PUT', '/api/account', other)).status).toBe(200)
})

test('whose role is changed, who is removed, and who signs out has no way in at once', async () => {
  const owner = await as('owner')
  const other = { name: 'Short', address: 'short@galewright.example', password, role: 'editor' }
  const { id } = (await owner('POST', '/api/users', other)).body
  const signedIn = async () =>
    cookieOf(
      await ask('POST', '/api/session', {
        headers: ours,
        body: { address: other.address, password },
      }),
    )
  const may = (cookie: string) =>
    ask('POST', '/api/lists', { headers: { ...ours, cookie }, body: {} })
  const first = await signedIn()
  expect((await may(first)).status).toBe(422)
  expect((await owner('PUT', `/api/users/${id}`, { role: 'viewer' })).status).toBe(200)
  expect((await may(first)).status).toBe(403)
  const second = await signedIn()
  await ask('DELETE', '/api/session', { headers: { ...ours, cookie: second } })
  expect((await may(second)).status).toBe(401)
  expect((await owner('DELETE', `/api/users/${id}`)).status).toBe(200)
  expect((await may(first)).status).toBe(401)
  expect(await signedIn()).toBe('')
})

test('somebody is always an owner, and nobody removes themselves', async () => {
  const owner = await as('owner')
  expect((await owner('DELETE', `/api/users/${ids.owner}`)).status).toBe(409)
  // The one who came with the installation is an owner as well.
  changeRole(satchel.db, 1, 'viewer')
  expect((await owner('PUT', `/api/users/${ids.owner}`, { role: 'editor' })).status).toBe(409)
  changeRole(satchel.db, 1, 'owner')
})

test('a new password ends every other session; a link for one works once, and for an hour', async () => {
  const owner = await as('owner')
  const [here, there] = [await as('writer'), await as('writer')]
  const next = 'another fair wind for kites'
  const wrong = await here('PUT', '/api/me/password', { old: 'not it at all', password: next })
  expect([wrong.status, wrong.body.data.fields.old]).toEqual([422, 'This is not your password.'])
  expect((await here('PUT', '/api/me/password', { old: password, password: next })).status).toBe(
    200,
  )
  expect((await here('GET', '/api/me')).status).toBe(200)
  expect((await there('GET', '/api/me')).status).toBe(401)
  expect((await enter('writer')).status).toBe(401)

  const { link } = (await owner('POST', `/api/users/${ids.writer}/reset`)).body
  const key = new URL(link).hash.slice(1)
  expect(key.length).toBeGreaterThanOrEqual(32)
  const set = (given: string) =>
    ask('POST', '/api/session/reset', { headers: ours, body: { key: given, password } })
  expect((await set('guess')).status).toBe(404)
  run(
    satchel.db,
    q
      .updateTable('users')
      .set({ reset_until: Date.now() - 1 })
      .where('id', '=', ids.writer),
  )
  expect((await set(key)).status).toBe(404)
  run(
    satchel.db,
    q
      .updateTable('users')
      .set({ reset_until: Date.now() + HOUR })
      .where('id', '=', ids.writer),
  )
  expect((await set(key)).status).toBe(200)
  expect((await set(key)).status).toBe(404)
  expect((await here('GET', '/api/me')).status).toBe(401)
  expect((await enter('writer')).status).toBe(200)
})

test('sessions are listed, and ended one by one or all', async () => {
  const [here, there, third] = [await as('viewer'), await as('viewer'), await as('viewer')]
  const { sessions } = (await here('GET', '/api/me')).body as {
    sessions: { id: number; isThis: boolean; device: string; address: string }[]
  }
  expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1)
  expect(sessions[0]).toMatchObject({ device: 'Another program', address: '127.0.0.1' })
  const theirs = sessions.filter(({ isThis }) => !isThis)
  const owners = (await (await as('owner'))('GET', '/api/me')).body.sessions[0].id
  expect((await here('DELETE', `/api/me/sessions/${owners}`)).status).toBe(404)
  await here('DELETE', `/api/me/sessions/${theirs[0]!.id}`)
  expect((await third('GET', '/api/me')).status).toBe(401)
  await here('DELETE', '/api/me/sessions')
  expect((await there('GET', '/api/me')).status).toBe(401)
  expect((await here('GET', '/api/me')).status).toBe(200)
})

test('a session nobody uses for 30 days is over, and one of 90 days too', async () => {
  const day = 24 * HOUR
  for (const age of [{ used_at: 30 }, { began_at: 90 }]) {
    const viewer = await as('viewer')
    const latest = sessions().at(-1)!.id
    const [column, days] = Object.entries(age)[0]!
    run(
      satchel.db,
      q
        .updateTable('sessions')
        .set({ [column]: Date.now() - days * day })
        .where('id', '=', latest),
    )
    expect((await viewer('GET', '/api/me')).status).toBe(401)
  }
})

test('what is sensitive asks for the password again after an hour', async () => {
  const owner = await as('owner')
  const latest = sessions().at(-1)!.id
  run(
    satchel.db,
    q
      .updateTable('sessions')
      .set({ confirmed_at: Date.now() - HOUR })
      .where('id', '=', latest),
  )
  const asked = [
    ['POST', '/api/tokens', { name: 'x' }],
    ['POST', '/api/users', { name: 'x' }],
    ['POST', '/api/people/1/erase', {}],
    ['POST', '/api/data-out', {}],
  ] as const
  for (const [method, path, body] of asked) {
    const answer = await owner(method, path, body)
    expect([answer.status, answer.body.data], path).toEqual([403, { confirm: true }])
  }
  expect((await owner('POST', '/api/session/confirm', { password: 'not it' })).status).toBe(422)
  expect((await owner('POST', '/api/tokens', { name: 'x' })).status).toBe(403)
  expect((await owner('POST', '/api/session/confirm', { password })).status).toBe(200)
  const { id } = (await owner('POST', '/api/tokens', { name: 'x' })).body
  expect((await owner('DELETE', `/api/tokens/${id ?? 2}`)).status).toBe(200)
})

test('with a second factor the password alone lets nobody in; a code works once, a recovery code once', async () => {
  const editor = await as('editor')
  const { secret, picture } = (await editor('POST', '/api/me/second-factor')).body
  expect(picture).toMatch(/^<svg/)
  const wrong = await editor('PUT', '/api/me/second-factor', { secret, code: '000000' })
  expect(wrong.status).toBe(422)
  const now = Date.now()
  const set = await editor('PUT', '/api/me/second-factor', { secret, code: totpCode(secret, now) })
  expect(set.body.recoveryCodes).toHaveLength(10)
  const [recovery] = set.body.recoveryCodes as string[]
  const without = await enter('editor')
  expect([without.status, without.body.data, without.cookies]).toEqual([
    401,
    { secondFactor: true },
    [],
  ])
  expect((await enter('editor', { code: totpCode(secret, now) })).status).toBe(401)
  expect((await enter('editor', { code: totpCode(secret, now + 30_000) })).status).toBe(200)
  expect((await enter('editor', { code: recovery!.toUpperCase() })).status).toBe(200)
  expect((await enter('editor', { code: recovery })).status).toBe(401)
  expect((await enter('editor', { code: "' or 1=1 --" })).status).toBe(401)
  expect((await editor('DELETE', '/api/me/second-factor')).status).toBe(200)
  expect((await enter('editor')).status).toBe(200)
})

test('guessing is slowed for who guesses, and for nobody else', async () => {
  const guess = (from: string, address = addressOf('viewer')) =>
    ask('POST', '/api/session', { headers: ours, body: { address, password: 'a wrong one' }, from })
  const known = cookieOf(await enter('viewer', {}, '127.9.0.1'))
  const statuses: number[] = []
  // Until the wait is so long that a slow machine asks again within it.
  for (let wait = 0, n = 0; wait < 8 && n < 20; n++) {
    const { status, headers } = await guess('127.9.0.1')
    statuses.push(status)
    wait = status === 429 ? Number(headers['retry-after']) : 0
    if (wait > 0 && wait < 8) await new Promise((over) => setTimeout(over, wait * 1_000))
  }
  expect(statuses.slice(0, 4)).toEqual([401, 401, 401, 401])
  expect(statuses.at(-1)).toBe(429)
  const slowed = await enter('viewer', {}, '127.9.0.2')
  expect([slowed.status, Number(slowed.headers['retry-after'])]).toEqual([429, expect.any(Number)])
  // From another network, and on the device that has signed in before, the right one comes in.
  expect((await enter('viewer', {}, '127.9.1.1')).status).toBe(200)
  const device = await ask('POST', '/api/session', {
    headers: {
      ...ours,
      cookie: known.split('; ').find((one) => one.startsWith('satchel-device'))!,
    },
    body: { address: addressOf('viewer'), password },
    from: '127.9.0.1',
  })
  expect(device.status).toBe(200)
  // Nor does it tell who works here.
  const [someone, nobody] = [
    await guess('127.9.2.1', addressOf('owner')),
    await guess('127.9.2.1', 'no@one.example'),
  ]
  expect([someone.status, someone.body.message]).toEqual([nobody.status, nobody.body.message])
  // Many at once count as many.
  const burst = await Promise.all(
    Array.from({ length: 40 }, () => guess('127.9.3.1', 'other@x.example')),
  )
  expect(burst.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(10)
})

test('nobody but the first becomes owner over the web, and only with the setup code', async () => {
  const body = {
    ...{ name: 'Eve', address: 'eve@evil.example', password, accountName: 'E', zone: 'UTC' },
    code: setupCode,
  }
  expect((await ask('POST', '/api/owner', { headers: ours, body })).status).toBe(409)
  const empty = await install({ empty: true })
  const before = satchel
  try {
    await empty.start('web')
    satchel = empty
    const guess = await ask('POST', '/api/owner', { headers: ours, body: { ...body, code: '1' } })
    expect([guess.status, guess.cookies]).toEqual([422, []])
    expect((await ask('POST', '/api/owner', { headers: ours, body })).status).toBe(200)
    expect((await ask('GET', '/enter/undefined')).status).toBe(404)
  } finally {
    satchel = before
    await empty.stop()
  }
})

test('the demo’s door opens from this machine alone, with its key', async () => {
  const path = new URL(satchel.enterUrl).pathname
  expect((await ask('GET', path)).status).toBe(302)
  expect((await ask('GET', `${path}x`)).status).toBe(404)
  const over = { 'x-forwarded-for': '127.0.0.1' }
  expect((await ask('GET', path, { headers: over })).status).toBe(404)
})

test('who did what is in the audit log, from where; nobody changes it, and owners export it', async () => {
  const editor = await as('editor')
  const { id } = (await editor('POST', '/api/lists', { name: 'Noted', description: '=cmd()' })).body
  const [noted] = auditLog(satchel.db, null, 1)
  expect(noted).toMatchObject({
    user_name: 'editor',
    did: 'added a list',
    what: `/lists/${id}`,
    address: '127.0.0.1',
  })
  const before = auditLog(satchel.db, null, 1_000).length
  await editor('POST', '/api/lists', { name: '' })
  await editor('GET', '/api/lists')
  expect(auditLog(satchel.db, null, 1_000)).toHaveLength(before)
  await ask('POST', '/api/session', {
    headers: ours,
    body: { address: addressOf('editor'), password: 'wrong' },
  })
  expect(auditLog(satchel.db, null, 1_000)).toContainEqual(
    expect.objectContaining({ did: 'failed to sign in', user_name: 'editor' }),
  )
  const owner = await signIn(satchel)
  const { body: csv } = await owner('GET', '/api/audit.csv')
  expect(csv.split('\r\n')[0]).toBe('at,user,did,what,address,device')
  expect(csv).toContain(`,editor,added a list,/lists/${id},127.0.0.1,`)
  await until(
    'that is noted, too',
    () => auditLog(satchel.db, null, 1)[0]!.did === 'exported the audit log',
  )
})

test('a writer sends what was approved, and nothing else', async () => {
  const [writer, editor] = [await as('writer'), await as('editor')]
  const letter = finishedLetter('To be approved')
  const id = createMailing(satchel.db, { name: 'Approved', listId: 1, letter }, Date.now())
  const path = `/api/mailings/${id}`
  const send = async () => {
    const { fingerprint } = (await writer('GET', `${path}/happening`)).body
    return writer('POST', `${path}/dispatch`, { at: null, seen: fingerprint })
  }
  expect((await send()).body.message).toMatch(/Writers send what was approved/)
  const asked = (ofId: number) => writer('POST', `${path}/approval`, { ofId, note: '' })
  expect((await asked(ids.viewer)).status).toBe(409)
  expect((await asked(ids.editor)).status).toBe(200)
  const verdict = { verdict: 'approved', words: '', sawVersion: 1 }
  expect((await writer('PUT', `${path}/approval`, verdict)).status).toBe(403)
  expect((await send()).status).toBe(409)
  expect((await editor('PUT', `${path}/approval`, verdict)).status).toBe(200)
  const { plan, version } = (await writer('GET', `${path}/plan`)).body
  const slower = { plan: { ...plan, perMinute: 5 }, version }
  expect((await writer('PUT', `${path}/plan`, slower)).status).toBe(200)
  expect((await send()).body.message).toMatch(/Changed since it was approved/)
  expect((await editor('PUT', `${path}/approval`, verdict)).status).toBe(200)
  expect((await send()).status).toBe(200)
})
