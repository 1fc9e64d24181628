import { createHash } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { Agent, get } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { install, signIn, type Installation } from './installation'

let satchel: Installation
beforeAll(async () => {
  satchel = await install()
  await satchel.start('web')
})
afterAll(() => satchel.stop())

const paths = [
  ...['/', '/mail/1/letter', '/sign-in', '/new-password', '/nothing/here', '/satchel.svg'],
  ...['/api/people', '/api/session', '/api/health', '/api/v1/openapi.json', '/api/nothing'],
  ...['/u/x', '/c/x/1', '/o/x.gif', '/w/abcdefghijklmnop', '/p/abc', '/enter/x', '/data/x'],
  ...['/calendar/x.ics', '/practice/clock', '/r/x', '/r/confirm/x'],
]
test.each(paths)(
  '%s says what it is, who may frame it, and nothing of what it is made with',
  async (path) => {
    const { headers } = await fetch(satchel.url + path, { redirect: 'manual' })
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    expect(headers.get('content-security-policy') ?? '').toMatch(/frame-ancestors 'none'|sandbox/)
    expect(headers.get('referrer-policy')).toBeTruthy()
    expect(headers.get('x-powered-by')).toBeNull()
    expect(headers.get('server')).toBeNull()
    expect(headers.getSetCookie()).toEqual([])
  },
)

test('a page runs scripts of ours and those it begins with, by their hash, and no others', async () => {
  const answer = await fetch(`${satchel.url}/mail`)
  const policy = answer.headers.get('content-security-policy')!
  const scripts = /script-src ([^;]*)/.exec(policy)![1]!.split(' ')
  expect(scripts[0]).toBe("'self'")
  expect(policy).not.toMatch(/script-src[^;]*unsafe/)
  const inline = [...(await answer.text()).matchAll(/<script(?![^>]*(?:src=|json))[^>]*>([^<]+)</g)]
  expect(inline.length).toBeGreaterThan(0)
  for (const [, script] of inline)
    expect(scripts).toContain(`'sha256-${createHash('sha256').update(script!).digest('base64')}'`)
})

test('what stands behind the sign-in is kept by no browser', async () => {
  const ask = await signIn(satchel)
  expect((await ask('GET', '/api/people')).status).toBe(200)
  const { headers } = await fetch(`${satchel.url}/api/people`)
  expect(headers.get('cache-control')).toBe('no-store')
})

test('reached over https, browsers are told to stay there', async () => {
  const secure = await install({ env: { SATCHEL_URL: 'https://mail.galewright.example' } })
  try {
    await secure.start('web')
    const { headers } = await fetch(secure.url)
    expect(headers.get('strict-transport-security')).toMatch(/max-age=\d{8}/)
    const entered = await fetch(secure.enterUrl, { redirect: 'manual' })
    for (const cookie of entered.headers.getSetCookie())
      expect(cookie).toMatch(/^__Host-satchel.*; Path=\/; HttpOnly; Secure; SameSite=Lax$/)
    expect((await fetch(satchel.url)).headers.get('strict-transport-security')).toBeNull()
  } finally {
    await secure.stop()
  }
})

test('a reader closes no line that the web process may just send on', async () => {
  const agent = new Agent({ keepAlive: true })
  const sockets = readdirSync(tmpdir()).filter((name) => /^satchel-\d+-\d-\d+\.sock$/.test(name))
  const told = await Promise.all(
    sockets.map(
      (name) =>
        new Promise<string | undefined>((done) => {
          const asked = get(
            { socketPath: join(tmpdir(), name), path: '/api/health', agent },
            (answer) => {
              answer.resume()
              done(String(answer.headers['keep-alive'] ?? 'for ever'))
            },
          )
          // Of a process that is gone.
          asked.on('error', () => done(undefined))
        }),
    ),
  )
  agent.destroy()
  const living = told.filter((one) => one !== undefined)
  expect(living.length).toBeGreaterThanOrEqual(2)
  expect(new Set(living)).toEqual(new Set(['for ever']))
})
