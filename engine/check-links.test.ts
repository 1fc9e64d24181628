import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { askLink } from './check-links'

/** Straight, and this machine may be asked. */
const near = { webProxy: null, mayReach: ['127.0.0.1'] }
let server: Server
let base: string
beforeAll(async () => {
  server = createServer((request, response) => {
    const path = new URL(request.url!, 'http://x').pathname
    const answers: Record<string, [number, string?]> = {
      '/ok': [200],
      '/gone': [404],
      '/moved': [301, '/ok'],
      '/round': [302, '/round'],
      '/get-only': request.method === 'HEAD' ? [405] : [200],
      '/mail': [302, 'mailto:a@b.example'],
      '/odd': [302, 'http://['],
    }
    const [status, location] = answers[path] ?? [500]
    response.writeHead(status, location ? { Location: location } : {})
    response.end()
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => server.close())

test.each([
  ['/ok', { status: 200, problem: null }],
  ['/gone', { status: 404, problem: null }],
  ['/moved', { status: 200, problem: null }],
  ['/get-only', { status: 200, problem: null }],
  ['/mail', { status: 302, problem: null }],
  ['/round', { status: null, problem: 'it redirects in circles' }],
  ['/odd', { status: null, problem: 'it redirects to an address that is none' }],
])('%s answers %j', async (path, expected) => {
  expect(await askLink(base + path, near)).toEqual(expected)
})

test('through a proxy the whole address is asked for', async () => {
  expect(await askLink('https://galewright.example/gone', { ...near, webProxy: base })).toEqual({
    status: 404,
    problem: null,
  })
})

test('sites that are not there are told in words', async () => {
  expect(await askLink('http://127.0.0.1:9/', near)).toEqual({
    status: null,
    problem: 'the site refuses connections',
  })
  expect(await askLink('http://[', near)).toEqual({ status: null, problem: 'it is no web address' })
})
