import type { LookupAddress } from 'node:dns'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { askWeb, type Way } from './ask-web'
import { lookInto } from './mailbox'
import { addressesToReach, NotReached } from './reach'

/** Two servers of this machine: one that may be asked, and one inside, which nobody outside may have asked. */
let allowed: Server
let inside: Server
let port: number
let insidePort: number
const asked: string[] = []
const redirects = new Map<string, string>()

const listen = (server: Server, address: string) =>
  new Promise<number>((done) =>
    server.listen(0, address, () => done((server.address() as AddressInfo).port)),
  )
beforeAll(async () => {
  allowed = createServer((request, response) => {
    const to = redirects.get(request.url!)
    response.writeHead(to ? 302 : 200, to ? { Location: to } : {})
    response.end('outside')
  })
  inside = createServer((request, response) => {
    asked.push(request.url!)
    response.end('inside')
  })
  port = await listen(allowed, '127.0.0.5')
  insidePort = await listen(inside, '127.0.0.1')
})
afterAll(() => {
  allowed.close()
  inside.close()
})
beforeEach(() => void asked.splice(0))

const here = { address: '127.0.0.5', family: 4 }
/** A resolver of our own: what each name answers, one answer after the other. */
function resolver(answers: Record<string, LookupAddress[][]>) {
  const left = structuredClone(answers)
  return (name: string) => {
    const next = left[name]?.shift()
    if (!next) return Promise.reject(Object.assign(new Error('none'), { code: 'ENOTFOUND' }))
    return Promise.resolve(next)
  }
}
const way = (answers: Record<string, LookupAddress[][]> = {}, mayReach: string[] = []): Way => ({
  webProxy: null,
  mayReach,
  resolve: resolver(answers),
})
const told = async (url: string, by: Way) => {
  const got = await askWeb(url, 'GET', by, 3_000)
  if ('problem' in got) return got.problem
  got.answer.destroy()
  return got.answer.statusCode
}
const NOT = 'it is no address on the public internet'

test('no form of an address leads inside, open or closed', async () => {
  for (const host of [
    ...['127.0.0.1', '0x7f.1', '2130706433', '017700000001', '127.1', '0.0.0.0', '[::1]', '[::]'],
    ...[
      '[::ffff:127.0.0.1]',
      '[::ffff:7f00:1]',
      '[64:ff9b::7f00:1]',
      '[fe80::1]',
      '169.254.169.254',
    ],
    ...['10.0.0.1', '192.168.0.1', '[fd00::1]'],
  ])
    for (const at of [insidePort, 9])
      expect(await told(`http://${host}:${at}/x`, way()), host).toBe(NOT)
  expect(asked).toEqual([])
})

test('a name that leads inside is not followed, nor one that leads there the second time', async () => {
  const loopback = { address: '127.0.0.1', family: 4 }
  const rebinds = way({ 'inside.example': [[loopback]], 'rebinds.example': [[here], [loopback]] }, [
    `rebinds.example:${port}`,
  ])
  expect(await told(`http://inside.example:${insidePort}/x`, rebinds)).toBe(NOT)
  // The first answer is what is connected to, and the name is not asked about again for it.
  expect(await told(`http://rebinds.example:${port}/x`, rebinds)).toBe(200)
  expect(await told(`http://rebinds.example:${insidePort}/x`, rebinds)).toBe(NOT)
  expect(await told(`http://localhost:${insidePort}/x`, way({ localhost: [[loopback]] }))).toBe(NOT)
  expect(asked).toEqual([])
})

test('a redirect does not lead inside', async () => {
  const by = way({ 'public.example': [[here], [here]] }, [`public.example:${port}`])
  redirects.set('/to-address', `http://127.0.0.1:${insidePort}/secret`)
  redirects.set('/to-form', `http://[::ffff:127.0.0.1]:${insidePort}/secret`)
  expect(await told(`http://public.example:${port}/to-address`, by)).toBe(NOT)
  expect(await told(`http://public.example:${port}/to-form`, by)).toBe(NOT)
  expect(asked).toEqual([])
})

test('of several addresses only the public ones are connected to; a host that is named may be anywhere', async () => {
  const both = [
    { address: '127.0.0.1', family: 4 },
    { address: '8.8.8.8', family: 4 },
    { address: '::1', family: 6 },
  ]
  const resolve = resolver({ 'both.example': [both], 'named.example': [both] })
  expect(await addressesToReach('both.example', 80, { mayReach: [], resolve })).toEqual([both[1]])
  const named = { mayReach: ['named.example'], resolve }
  expect(await addressesToReach('named.example', 80, named)).toHaveLength(3)
  await expect(addressesToReach('127.0.0.1', 80, { mayReach: ['127.0.0.1:81'] })).rejects.toThrow(
    NotReached,
  )
})

test('through a proxy an address inside is not asked for either', async () => {
  const proxied = { ...way(), webProxy: `http://127.0.0.1:${insidePort}` }
  for (const host of ['127.0.0.1', '[::1]', 'localhost', '10.1.2.3'])
    expect(
      await told(`http://${host}/x`, {
        ...proxied,
        resolve: resolver({ localhost: [[{ address: '::1', family: 6 }]] }),
      }),
    ).toBe(NOT)
  expect(asked).toEqual([])
  expect(await told('http://galewright.example/x', proxied)).toBe(200)
  expect(asked).toEqual(['http://galewright.example/x'])
})

test('a mailbox inside is not opened, and open and closed ports are told alike', async () => {
  const mailbox = (at: number) => ({
    ...{ host: '127.0.0.1', port: at, secure: 0 as const, login: 'x', password: 'x' },
  })
  for (const at of [insidePort, 9])
    await expect(lookInto(mailbox(at), ['<x@y>'], { mayReach: [] })).rejects.toThrow(
      `127.0.0.1:${at} could not be read: ${NOT}`,
    )
  expect(asked).toEqual([])
})
