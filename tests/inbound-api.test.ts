import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { all, one, q } from '../database'
import { addApiToken, revokeApiToken } from '../database/imports'
import { factsOf } from '../database/segments'
import { addField, changeSubscription } from '../database/people'
import { formFrom, signUpTemplates } from '../core/sign-ups'
import { addSignUp, publishSignUp, signUpById } from '../database/sign-ups'
import { install, type Installation } from './installation'

/** What programs may send: people, events and orders, with a token. */
let satchel: Installation
let token: string
beforeAll(async () => {
  satchel = await install()
  await satchel.start('web')
  token = addApiToken(satchel.db, 'Shop', Date.now()).token
})
afterAll(() => satchel.stop())

async function send(what: string, body: unknown, headers: Record<string, string> = {}) {
  const answer = await fetch(`${satchel.url}/api/v1/${what}`, {
    method: 'POST',
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', ...headers },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })
  return { status: answer.status, body: (await answer.json()) as any }
}
const idOf = (normal: string) =>
  one(satchel.db, q.selectFrom('people').select('id').where('normal', '=', normal))?.id

test('no token, a wrong one and a revoked one are refused', async () => {
  for (const authorization of ['', 'Bearer st_wrong', `Basic ${token}`])
    expect((await send('people', [{ address: 'x@y.example' }], { authorization })).status).toBe(401)
  const other = addApiToken(satchel.db, 'Old', Date.now())
  revokeApiToken(satchel.db, other.id, Date.now())
  expect((await send('people', [{}], { authorization: `Bearer ${other.token}` })).status).toBe(401)
  expect(JSON.stringify(all(satchel.db, q.selectFrom('api_tokens').selectAll()))).not.toContain(
    token,
  )
})

test('a batch says what it did with each entry; a faulty one leaves nothing behind', async () => {
  const { status, body } = await send('people', [
    {
      address: 'Tove@Shop.example',
      values: { first_name: 'Tove' },
      tags: ['shop'],
      lists: [{ list: 'wind-notes', agreed: 'Ticked the box at checkout.' }],
    },
    { address: 'not an address' },
    { address: 'half@shop.example', lists: [{ list: 'no-such-list', agreed: 'x' }] },
    { address: 'odd@shop.example', values: { colour: 'red' } },
    { address: 'odd@shop.example', lists: [{ list: 'wind-notes' }] },
    'what',
    { address: 'tove@shop.example', values: { first_name: 'Tove' } },
  ])
  expect(status).toBe(200)
  expect(body).toMatchObject({ taken: 2, refused: 5 })
  expect(
    body.results.map((one: { status: string; path?: string }) => one.path ?? one.status),
  ).toEqual([
    'added',
    'address',
    'lists[0].list',
    'values.colour',
    'lists[0].agreed',
    '',
    'unchanged',
  ])
  expect(idOf('half@shop.example')).toBeUndefined()
  const tove = factsOf(satchel.db, idOf('tove@shop.example')!)!
  expect(tove.subscriptions.get(1)).toMatchObject({ state: 'subscribed', way: 'API' })
  expect(tove.tags.size).toBe(1)
})

test('nobody who left a list is brought back', async () => {
  const id = idOf('tove@shop.example')!
  changeSubscription(satchel.db, id, 1, 'unsubscribed', { act: 'person', way: 'link' }, Date.now())
  await send('people', [
    { address: 'tove@shop.example', lists: [{ list: 'wind-notes', agreed: 'again' }] },
  ])
  expect(factsOf(satchel.db, id)!.subscriptions.get(1)!.state).toBe('unsubscribed')
})

test('events and orders become facts about people on file; an order’s number is taken once', async () => {
  expect(
    (
      await send('events', [
        {
          address: 'tove@shop.example',
          name: 'page view',
          at: '2026-01-05T10:00:00Z',
          properties: { page: '/delta', new: true },
        },
      ])
    ).body.taken,
  ).toBe(1)
  const order = {
    number: 'S-1',
    address: 'tove@shop.example',
    at: '2026-02-01T10:00:00Z',
    items: [{ product: 'delta-7', name: 'Delta 7', category: 'delta', quantity: 2, money: 18_800 }],
  }
  expect((await send('orders', [order])).body.results[0].status).toBe('added')
  expect((await send('orders', [order])).body.results[0].status).toBe('unchanged')
  expect(
    (await send('orders', [{ ...order, number: 'S-2', address: 'nobody@shop.example' }])).status,
  ).toBe(422)
  expect(
    (
      await send('orders', [
        { ...order, number: 'S-3', items: [{ ...order.items[0], money: '94.00' }] },
      ])
    ).body.results[0].path,
  ).toBe('items[0].money')
  const facts = factsOf(satchel.db, idOf('tove@shop.example')!)!
  expect(facts.orders).toEqual([
    {
      at: Date.parse(order.at),
      money: 18_800,
      items: [{ product: 'Delta 7', category: 'delta', money: 18_800 }],
    },
  ])
  expect(facts.events).toEqual([
    { name: 'page view', at: Date.UTC(2026, 0, 5, 10), props: { page: '/delta', new: true } },
  ])
})

test('with the same idempotency key a request is taken once, and answered alike', async () => {
  const key = { 'idempotency-key': 'k-1' }
  const event = [{ address: 'tove@shop.example', name: 'basket' }]
  const [first, second] = [await send('events', event, key), await send('events', event, key)]
  expect(second).toEqual(first)
  expect(
    all(satchel.db, q.selectFrom('events').select('id').where('name', '=', 'basket')),
  ).toHaveLength(1)
  expect((await send('events', [{ ...event[0], name: 'other' }], key)).status).toBe(422)
})

test.each([
  ['{', '', /not JSON/],
  ['{}', 'entries', /list of entries/],
  ['[]', 'entries', /no entry/],
  [JSON.stringify(Array.from({ length: 1_001 }, () => ({}))), 'entries', /At most 1000/],
])('a malformed body answers 422 with the path of the fault: %#', async (body, path, message) => {
  const answer = await send('people', body)
  expect(answer.status).toBe(422)
  expect(answer.body.data.path).toBe(path)
  expect(answer.body.message).toMatch(message)
})

interface Described {
  type: string
  required?: string[]
  properties?: Record<string, Described>
  items?: Described
}

/** Whole entries of each kind, in whose every part something else can be put. */
const whole: Record<string, Record<string, unknown>> = {
  people: {
    address: 'whole@shop.example',
    values: { first_name: 'Whole' },
    tags: ['shop'],
    lists: [{ list: 'wind-notes', agreed: 'Ticked the box.' }],
  },
  events: {
    address: 'tove@shop.example',
    name: 'basket',
    at: '2026-01-05T10:00:00Z',
    properties: { page: '/delta' },
  },
  orders: {
    number: 'W',
    address: 'tove@shop.example',
    at: '2026-02-01T10:00:00Z',
    items: [{ product: 'w', name: 'W', category: 'c', quantity: 2, money: 100 }],
  },
  products: {
    key: 'w',
    name: 'W',
    category: 'c',
    price: 100,
    url: 'https://shop.example/w',
    picture: 'https://shop.example/w.jpg',
    stock: 3,
  },
}

/** The places in an entry, as paths, and whether the description calls them needed. */
function* placesIn(
  of: Described,
  path: (string | number)[] = [],
): Generator<[typeof path, boolean]> {
  for (const [name, part] of Object.entries(of.properties ?? {})) {
    yield [[...path, name], of.required?.includes(name) ?? false]
    yield* placesIn(part, [...path, name])
    if (part.items) yield* placesIn(part.items, [...path, name, 0])
  }
}

/** A copy of an entry with something else at a place; `undefined`: nothing. */
function withAt(entry: unknown, path: (string | number)[], value: unknown): unknown {
  const copy = structuredClone(entry) as any
  const last = path.at(-1)!
  const into = path.slice(0, -1).reduce((of, key) => of[key], copy)
  if (value === undefined) delete into[last]
  else into[last] = value
  return copy
}

test.each(Object.keys(whole))(
  '%s: whatever stands in a part of an entry, it is taken or refused by itself, and the others are taken',
  async (what) => {
    const document = (await (await fetch(`${satchel.url}/api/v1/openapi.json`)).json()) as any
    const { items } = document.paths[`/${what}`].post.requestBody.content['application/json'].schema
    const others: unknown[] = [
      undefined,
      null,
      '',
      [],
      {},
      7,
      -1,
      0.5,
      1e300,
      true,
      'x',
      [null],
      [[]],
      '\ud800',
      { toString: [] },
    ]
    const [key] = Object.keys(whole[what]!)
    let n = 0
    // What tells entries apart differs, so that each is one of its own.
    const next = () =>
      what === 'orders' || what === 'products'
        ? { ...whole[what], [key!]: `${what}-${n++}` }
        : whole[what]!
    for (const [path, needed] of placesIn(items as Described)) {
      const batch = [next(), ...others.map((other) => withAt(next(), path, other)), next()]
      const { status, body } = await send(what, batch)
      expect([path, status]).toEqual([path, 200])
      const { results } = body as { results: { status: string; path?: string; message?: string }[] }
      expect(results).toHaveLength(batch.length)
      for (const good of [results[0]!, results.at(-1)!]) expect(good.status).not.toBe('refused')
      // What may be left out may be null as well.
      for (const [i, nothing] of [
        [1, 'missing'],
        [2, 'null'],
      ] as const)
        expect([path, nothing, results[i]!.status === 'refused']).toEqual([path, nothing, needed])
      for (const one of results.filter((result) => result.status === 'refused'))
        expect(one.message).toMatch(/^[A-Z“].*\.$/)
    }
  },
)

test('a day that there is not, and half a character, are refused with their place', async () => {
  const { body } = await send('events', [
    { ...whole.events, at: '2026-02-30T10:00:00Z' },
    { ...whole.events, properties: { page: '\ud800' } },
    whole.events,
  ])
  expect(body.results).toMatchObject([
    { status: 'refused', path: 'at' },
    { status: 'refused', path: 'properties' },
    { status: 'added' },
  ])
  const people = await send('people', [
    { ...whole.people, values: { first_name: '\udc00' } },
    { ...whole.people, tags: ['a\ud800'] },
    whole.people,
  ])
  expect(people.body.results.map(({ path }: { path?: string }) => path)).toEqual([
    'values',
    'tags[0]',
    undefined,
  ])
})

test('what a program’s own form was filled in with goes the way of the sign-up’s form, with the words that were agreed to', async () => {
  const guide = signUpTemplates.find(({ key }) => key === 'guide')!
  let part = 0
  const form = formFrom(guide, { id: 1, name: 'Wind notes' }, () => `p${++part}`)
  const id = addSignUp(satchel.db, 'Beach guide', form, 0)
  const { key } = signUpById(satchel.db, id)!
  const entry = {
    ...{ address: 'lone@inkpost.example', values: { first_name: 'Lone' } },
    agreed: ['Send me Wind notes as well. I can stop it with one click.'],
  }
  const to = (one: object) => send(`sign-ups/${key}`, [one])
  expect(await to(entry)).toMatchObject({ status: 422, body: { taken: 0 } })
  publishSignUp(satchel.db, id, 1, null, 0)
  expect(await to(entry)).toMatchObject({ status: 200, body: { taken: 1 } })
  const fault = async (over: object) => (await to({ ...entry, ...over })).body.results[0].path
  expect(await fault({ agreed: ['Send me everything.'] })).toBe('agreed[0]')
  expect(await fault({ agreed: [] })).toBe('agreed')
  expect(await fault({ address: 'nobody' })).toBe('address')
  expect(await fault({ values: { height: 3 } })).toBe('values.height')
  expect(idOf('lone@inkpost.example')).toBeUndefined()
  expect(
    all(satchel.db, q.selectFrom('sign_up_sendings').select(['normal', 'state', 'mail'])),
  ).toEqual([{ normal: 'lone@inkpost.example', state: 'pending', mail: 'confirm' }])
  expect((await send('sign-ups/nokey', [entry])).status).toBe(422)
  const forged = await send(`sign-ups/${key}`, [entry], { authorization: 'Bearer st_wrong' })
  expect(forged.status).toBe(401)
})

test('methods that there are not answer 405, and what there is not 404', async () => {
  for (const method of ['GET', 'PUT', 'DELETE', 'PATCH'])
    for (const what of ['people', 'events', 'orders', 'products']) {
      const answer = await fetch(`${satchel.url}/api/v1/${what}`, {
        method,
        headers: { authorization: `Bearer ${token}` },
      })
      expect([what, method, answer.status]).toEqual([what, method, 405])
      expect(answer.headers.get('allow')).toBe('POST')
    }
  expect((await send('kites', [])).status).toBe(404)
})

test('the document describes what is checked', async () => {
  const document = (await (await fetch(`${satchel.url}/api/v1/openapi.json`)).json()) as any
  expect(document.openapi).toBe('3.1.0')
  const order = document.paths['/orders'].post.requestBody.content['application/json'].schema
  expect(order.maxItems).toBe(1_000)
  expect(order.items.required).toEqual(['number', 'address', 'items'])
  const { properties } = order.items.properties.items.items
  expect(properties.money).toMatchObject({ type: 'integer' })
  expect(properties.quantity).toMatchObject({ type: ['integer', 'null'] })
})

test('every example of docs/api.md is taken as it stands there', async () => {
  const text = readFileSync('docs/api.md', 'utf8')
  const blocks = [...text.matchAll(/^```\n([\s\S]*?)^```$/gm)].map(([, inside]) => inside!)
  const examples = blocks.flatMap((block) =>
    block
      .split(/^(?=POST )/m)
      .filter(Boolean)
      .map((one) => ({
        path: /^POST (\S+)/.exec(one)![1]!,
        key: /^Idempotency-Key: (.+)$/m.exec(one)?.[1],
        body: one.slice(one.indexOf('[')),
      })),
  )
  expect(examples.map(({ path }) => path)).toEqual(
    ['people', 'events', 'products', 'orders'].map((what) => `/api/v1/${what}`),
  )
  addField(satchel.db, { key: 'town', name: 'Town', kind: 'text' })
  for (const { path, key, body } of examples) {
    const headers = key ? { 'idempotency-key': key } : {}
    const answer = await send(path.replace('/api/v1/', ''), body, headers as Record<string, string>)
    expect([path, answer]).toMatchObject([path, { status: 200, body: { taken: 1, refused: 0 } }])
  }
  const tove = factsOf(satchel.db, idOf('tove@inkpost.example')!)!
  expect(tove.subscriptions.get(1)).toMatchObject({ state: 'subscribed' })
})
