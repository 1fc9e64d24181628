import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { all, q, type Database } from '../database'
import { addJob, jobById } from '../database/jobs'
import { madeUpAccount } from '../database/made-up'
import { runJobs } from './jobs'
import { madeUpEngine } from './made-up'

let db: Database
let office: SMTPServer
let taken: { to: string; raw: string }[]
beforeEach(async () => {
  ;({ db } = madeUpAccount())
  taken = []
  office = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo({ address }, _session, done) {
      const no = address.startsWith('nobody')
      done(no ? Object.assign(new Error('No such mailbox'), { responseCode: 550 }) : null)
    },
    onData(stream, session, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const raw = Buffer.concat(pieces).toString('latin1')
        taken.push({ to: session.envelope.rcptTo[0]!.address, raw })
        done()
      })
    },
  })
  office.listen(0, '127.0.0.1')
  await once(office.server, 'listening')
})
afterEach(() => void office.close(() => {}))

const letter = {
  subject: 'Wind for Zoë 🪁',
  html: '<p>.\r\n.dots at the start of lines, and ünïcode</p>',
  text: '.\n.dots\n',
}
async function sent(to: string[], smtp = true) {
  const { port } = office.server.address() as AddressInfo
  const engine = madeUpEngine(db, { smtpUrl: smtp ? `smtp://127.0.0.1:${port}` : null })
  const id = addJob(db, 'send-copies', { to, ...letter }, 0)
  await runJobs(engine)
  return jobById(db, id)!
}

test('each address gets the letter as it was read, and nobody becomes a recipient', async () => {
  const job = await sent(['wren@kites.example', 'tove@kites.example'])
  expect(job).toMatchObject({ state: 'done', done: 2, total: 2 })
  expect(taken.map(({ to }) => to)).toEqual(['wren@kites.example', 'tove@kites.example'])
  const { raw } = taken[0]!
  expect(raw.replace(/\r\n/g, '')).not.toMatch(/[\r\n\u0080-\u00ff]/)
  const mail = await simpleParser(raw)
  expect(mail.subject).toBe('Copy: Wind for Zoë 🪁')
  expect(mail.from?.value[0]).toMatchObject({ address: 'hello@galewright.example' })
  expect(mail.html).toContain('ünïcode')
  expect(mail.text).toContain('.dots')
  expect(all(db, q.selectFrom('recipients').selectAll())).toEqual([])
})

test('what is refused is said, and what comes after it is not sent', async () => {
  const job = await sent(['nobody@kites.example', 'tove@kites.example'])
  expect(job).toMatchObject({ state: 'failed', done: 0 })
  expect(job.error).toMatch(/^nobody@kites\.example: refused \(550/)
  expect(taken).toEqual([])
})

test('without a mail server it says so', async () => {
  expect((await sent(['wren@kites.example'], false)).error).toMatch(/No mail server/)
})
