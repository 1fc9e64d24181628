import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, test, vi } from 'vitest'
import { HOUR } from '../core/time'
import { askForFeed, feedState, feedsToRead } from '../database/letters'
import { madeUpAccount } from '../database/made-up'
import { madeUpEngine } from './made-up'
import { askWeb } from './ask-web'
import { feedReader, toldBy } from './read-feeds'

let server: Server
let base: string
let items = '<item><title>First</title><link>/first</link></item>'
beforeAll(async () => {
  server = createServer((request, response) => {
    if (request.url === '/feed') {
      response.writeHead(200, { 'Content-Type': 'application/rss+xml' })
      response.end(`<rss version="2.0"><channel>${items}</channel></rss>`)
    } else if (request.url === '/moved') response.writeHead(302, { Location: '/feed' }).end()
    else if (request.url?.startsWith('/slow')) response.write('<rss>')
    else if (request.url === '/huge') response.end('x'.repeat(2_100_000))
    else response.writeHead(404).end('gone')
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => server.close())

test('a feed asked for is read once, told, and kept until it is asked for again', async () => {
  const { db } = madeUpAccount()
  const engine = madeUpEngine(db)
  const { time } = engine
  const url = `${base}/moved`
  expect(feedState(db, url, time.now)).toMatchObject({ entries: [], waits: true })
  const readFeeds = feedReader()
  expect(readFeeds(engine)).toBe(true)
  await vi.waitUntil(() => !feedState(db, url, time.now).waits, 20_000)
  const first = [{ title: 'First', href: `${base}/first`, about: '', day: '' }]
  expect(feedState(db, url, time.now)).toEqual({
    entries: first,
    problem: null,
    readAt: time.now,
    waits: false,
  })
  expect(readFeeds(engine)).toBe(false)
  items = `<item><title>Second</title><link>/second</link></item>${items}`
  time.now += HOUR / 2
  expect(feedState(db, url, time.now).waits).toBe(false)
  askForFeed(db, url, time.now + 1)
  expect(feedsToRead(db, 5)).toEqual([url])
  time.now += 1
  readFeeds(engine)
  await vi.waitUntil(() => feedState(db, url, time.now).entries.length === 2, 20_000)
  expect(feedState(db, url, time.now).entries.map(({ title }) => title)).toEqual([
    'Second',
    'First',
  ])
  time.now += HOUR + 1
  expect(feedState(db, url, time.now)).toMatchObject({ waits: false })
  expect(feedsToRead(db, 5)).toEqual([url])
})

test.each([
  ['/none', /answers 404/],
  ['/huge', /2 MB/],
])('%s is told in words, and what was told before stays', async (path, words) => {
  const told = await toldBy(madeUpEngine(madeUpAccount().db), base + path)
  expect('problem' in told && told.problem).toMatch(words)
})

test('feeds that never end hold up no other; they break off by themselves', async () => {
  const { db } = madeUpAccount()
  const engine = madeUpEngine(db)
  const { now } = engine.time
  for (const n of [1, 2, 3]) feedState(db, `${base}/slow${n}`, now)
  feedState(db, `${base}/feed`, now)
  const readFeeds = feedReader()
  readFeeds(engine)
  await vi.waitUntil(() => !feedState(db, `${base}/feed`, now).waits, 20_000)
  expect(feedState(db, `${base}/slow1`, now).waits).toBe(true)
  const got = await askWeb(`${base}/slow1`, 'GET', { webProxy: null, mayReach: ['127.0.0.1'] }, 300)
  if ('problem' in got) throw new Error(got.problem)
  await expect(got.answer.toArray()).rejects.toThrow(/aborted/i)
})
