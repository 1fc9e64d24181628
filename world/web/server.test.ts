import { mkdtempSync, rmSync } from 'node:fs'
import { request, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { Mailboxes } from '../post-office/mailboxes'
import { changeProvider, keepProviders, providerOf } from '../post-office/providers'
import { openWeb } from './server'

let web: Server
let port: number
let mailboxes: Mailboxes

beforeEach(async () => {
  mailboxes = new Mailboxes()
  web = openWeb({ mailboxes, waiting: () => 3, now: () => Date.UTC(2026, 10, 24) })
  await new Promise<void>((done) => web.listen(0, '127.0.0.1', done))
  port = (web.address() as AddressInfo).port
})
afterEach(() => void web.close())

/** One request with the path as it stands in its first line; a proxy gets whole URLs there. */
function get(path: string, method = 'GET') {
  return new Promise<{ status: number; location: string | undefined; text: string }>(
    (done, failed) => {
      request({ host: '127.0.0.1', port, path, method }, (answer) => {
        let text = ''
        answer.setEncoding('utf8')
        answer.on('data', (piece: string) => (text += piece))
        answer.on('end', () =>
          done({ status: answer.statusCode!, location: answer.headers.location, text }),
        )
      })
        .on('error', failed)
        .end()
    },
  )
}

function put(subject: string, body = '<p>Hello</p>') {
  return mailboxes.put({
    address: 'tove@harbourmail.example',
    from: 'bounce-1@galewright.example',
    subject,
    messageId: '<1@galewright.example>',
    at: Date.UTC(2026, 10, 23, 9, 40),
    folder: 'inbox',
    source: `From: Galewright <hello@galewright.example>\r\nSubject: ${subject}\r\nContent-Type: text/html; charset=utf-8\r\n\r\n${body}`,
  })
}

test.each([
  ['https://galewright.example/forecast', 200, undefined],
  ['https://www.galewright.example/', 200, undefined],
  ['https://galewright.example/shop', 301, 'https://galewright.example/new-kites'],
  ['https://galewright.example/sold-out', 404, undefined],
  ['https://elsewhere.example/', 502, undefined],
])('the site behind %s answers %d', async (url, status, location) => {
  expect(await get(url)).toMatchObject({ status, location })
  expect(await get(url, 'HEAD')).toMatchObject({ status, text: '' })
})

test('the shop’s journal is a feed with days before the world’s clock', async () => {
  const { text } = await get('https://galewright.example/journal.xml')
  expect(text).toContain('<link>https://galewright.example/line-care</link>')
  expect(text).toContain('<pubDate>Sun, 22 Nov 2026')
})

test('the world says how it is', async () => {
  put('Wind')
  expect(JSON.parse((await get('/health')).text)).toEqual({ mails: 1, waiting: 3 })
  expect(JSON.parse((await get('/mailboxes.json')).text)).toMatchObject([{ subject: 'Wind' }])
})

test('an empty post office says so; the mail that came stands there newest first', async () => {
  expect((await get('/mail')).text).toContain('No mail has come yet.')
  put('First')
  put('Second')
  const { text } = await get('/mail')
  expect(text.indexOf('Second')).toBeLessThan(text.indexOf('First'))
  expect((await get('/mail?address=nobody%40x.example')).text).toContain('No mail has come yet.')
})

test('a subject cannot put anything into the page', async () => {
  put('<script>alert(1)</script> "quoted"')
  const { text } = await get('/mail')
  expect(text).not.toContain('<script>')
  expect(text).toContain('&lt;script&gt;')
})

test('one message is shown without anything that runs, and its source can be had as it came', async () => {
  put('Wind', '<p onclick="x()">Hello</p><script>alert(1)</script>')
  const page = await get('/mail/0')
  const frame = /srcdoc="([^"]*)"/.exec(page.text)![1]!
  expect(frame).toContain('Hello')
  expect(frame).not.toContain('script')
  const source = await get('/mail/0.eml')
  expect(source.text).toContain('<script>alert(1)</script>')
})

test('what is not there answers 404', async () => {
  for (const path of ['/mail/7', '/mail/x', '/elsewhere'])
    expect((await get(path)).status).toBe(404)
})

function post(form: Record<string, string>, headers: Record<string, string> = {}) {
  return fetch(`http://127.0.0.1:${port}/providers`, {
    method: 'POST',
    body: new URLSearchParams(form),
    headers,
    redirect: 'manual',
  })
}

test('the habits of providers are shown, and changed by a form of their own page alone', async () => {
  const before = providerOf('a@inkpost.example').complaints
  const { status, text } = await get('/providers')
  expect(status).toBe(200)
  expect(text).toContain('Inkpost')
  expect(text).toContain(`name="complaints" type="number"`)
  const changed = await post({ domain: 'inkpost.example', complaints: '2.5', away: 'x' })
  expect([changed.status, changed.headers.get('location')]).toEqual([303, '/providers'])
  expect(providerOf('a@inkpost.example')).toMatchObject({ complaints: 0.025, away: 0.01 })
  expect((await post({ domain: 'nowhere.example', away: '1' })).status).toBe(404)
  const elsewhere = { 'sec-fetch-site': 'cross-site' }
  expect((await post({ domain: 'inkpost.example', away: '9' }, elsewhere)).status).toBe(403)
  expect((await post({ domain: 'x'.repeat(9_000) })).status).toBe(413)
  expect(providerOf('a@inkpost.example').away).toBe(0.01)
  changeProvider('inkpost.example', { complaints: before })
})

test('habits that were changed are there again after a start', () => {
  const folder = mkdtempSync(join(tmpdir(), 'providers-'))
  const file = join(folder, 'providers.json')
  const { reopens } = providerOf('a@veilpost.example')
  changeProvider('veilpost.example', { reopens: 0.5 })
  keepProviders(file).save()
  changeProvider('veilpost.example', { reopens })
  keepProviders(file)
  expect(providerOf('a@veilpost.example').reopens).toBe(0.5)
  changeProvider('veilpost.example', { reopens })
  rmSync(folder, { recursive: true })
})

test('the shop’s site carries the forms of Satchel by one line, for its proxy’s users and in a browser', async () => {
  const forms = {
    satchel: 'http://127.0.0.1:4500',
    forms: [
      { key: 'guide', kind: 'in-page' as const, pages: ['/beaches'] },
      { key: 'foot', kind: 'in-page' as const, pages: ['*'] },
    ],
  }
  const site = openWeb({ mailboxes, waiting: () => 0, now: Date.now, forms })
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done))
  port = (site.address() as AddressInfo).port
  try {
    const line = '<script async src="http://127.0.0.1:4500/s/forms.js"></script>'
    const guide = await get('https://galewright.example/beaches')
    expect(guide.text).toContain(line)
    expect(guide.text).toContain('<div data-sign-up="guide"></div>')
    expect(guide.text).not.toContain('data-sign-up="foot"')
    const other = await get('/shop/workshop')
    expect(other.text).toContain(line)
    expect(other.text).toContain('<footer><div data-sign-up="foot"></div>')
    expect(other.text).toContain('href="/shop/beaches"')
    expect((await get('/shop')).text).toContain('Kites made in Sandreach')
    expect((await get('/shop/wind')).location).toBe('/shop/forecast')
    const gone = await get('/shop/nowhere')
    expect([gone.status, gone.text.includes(line)]).toEqual([404, false])
  } finally {
    site.close()
  }
})
