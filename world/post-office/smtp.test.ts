import { createTransport, type Transporter } from 'nodemailer'
import type { SMTPServer } from 'smtp-server'
import type { AddressInfo } from 'node:net'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { chanceOf } from '../chance'
import { mailboxExists, providerOf } from './providers'
import { openPostOffice, type Arrived } from './smtp'

let office: SMTPServer
let arrived: Arrived[]
let now: number
let mail: Transporter

beforeEach(async () => {
  arrived = []
  now = Date.UTC(2026, 10, 23, 9)
  office = openPostOffice({ now: () => now, arrived: (one) => void arrived.push(one) })
  const listening = office.listen(0, '127.0.0.1')
  await new Promise((done) => listening.once('listening', done))
  const { port } = listening.address() as AddressInfo
  mail = createTransport({ host: '127.0.0.1', port, ignoreTLS: true })
})
afterEach(async () => {
  mail.close()
  await new Promise<void>((done) => office.close(() => done()))
})

const from = 'bounce-7@mail.galewright.example'

/** What the post office answers to one message: 250, or the code and the words of its refusal. */
function send(to: string, text = 'Wind from the west.') {
  return mail
    .sendMail({
      envelope: { from, to },
      from: 'hello@galewright.example',
      to,
      subject: 'Wind',
      text,
    })
    .then(
      () => '250',
      (error: { response?: string }) => error.response!,
    )
}

/** The first address of a provider for which something holds. */
function somebodyAt(domain: string, holds: (address: string) => boolean): string {
  for (let i = 0; ; i++) if (holds(`reader${i}@${domain}`)) return `reader${i}@${domain}`
}
const greylisted = (address: string) =>
  mailboxExists(address) && chanceOf('greylist', address, from) < providerOf(address).greylists

test('a message that was taken is in the mailbox, with where its bounce would go', async () => {
  expect(await send('Tove@Harbourmail.example')).toBe('250')
  expect(arrived).toMatchObject([{ address: 'tove@harbourmail.example', returnPath: from }])
  expect(arrived[0]!.source).toMatch(/^Subject: Wind\r$/m)
})

test('a mailbox that is not there is refused for good at the door', async () => {
  const nobody = somebodyAt('harbourmail.example', (address) => !mailboxExists(address))
  expect(await send(nobody)).toMatch(/^550 .*5\.1\.1/)
  expect(arrived).toEqual([])
})

test('the one provider that bounces later takes the message first', async () => {
  const nobody = somebodyAt('oldmill.example', (address) => !mailboxExists(address))
  expect(await send(nobody)).toBe('250')
  expect(arrived).toHaveLength(1)
})

test('a greylisting provider asks to come again, once for each sender and reader', async () => {
  const somebody = somebodyAt('inkpost.example', greylisted)
  expect(await send(somebody)).toMatch(/^451 4\.7\.1/)
  expect(await send(somebody)).toBe('250')
  expect(await send(somebody)).toBe('250')
  expect(arrived).toHaveLength(2)
})

test('one message may go to several readers, each in a mailbox of its own', async () => {
  await mail.sendMail({
    envelope: { from, to: ['a@workdesk.example', 'b@workdesk.example'] },
    from: 'hello@galewright.example',
    subject: 'Both',
    text: 'x',
  })
  expect(arrived.map(({ address }) => address)).toEqual([
    'a@workdesk.example',
    'b@workdesk.example',
  ])
})

test('bytes arrive as they were sent, also those outside ASCII and lines that begin with a dot', async () => {
  await send('tove@workdesk.example', 'Über Sandreach\r\n.hidden\r\n..')
  const body = Buffer.from(arrived[0]!.source, 'latin1').toString('utf8')
  expect(body).toContain('=C3=9Cber Sandreach')
  expect(body).toMatch(/^\.hidden\r$/m)
  expect(body).toMatch(/^\.\.\r$/m)
})
