import { once } from 'node:events'
import { createServer, type AddressInfo, type Server } from 'node:net'
import { SMTPServer } from 'smtp-server'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { TRIAL_ENDS } from '../core/delivery'
import { emptyLetter } from '../core/letters'
import type { Database } from '../database'
import { madeUpAccount } from '../database/made-up'
import {
  createMailing,
  askTrials,
  keepTrialMailbox,
  removeTrialMailbox,
  trialsOf,
} from '../database/mailings'
import { madeUpEngine } from './made-up'
import { tryDeliveries } from './try-deliveries'

let db: Database
let engine: ReturnType<typeof madeUpEngine>
let office: SMTPServer
let imap: Server
let taken: string[]
/** What the mailbox answers to each command after the greeting; `%` is its tag. */
let mailbox: (line: string) => string
let mailingId: number

beforeEach(async () => {
  let list: number
  ;({ db, list } = madeUpAccount())
  mailingId = createMailing(db, { name: 'Wind', listId: list, letter: emptyLetter() }, 0)
  taken = []
  office = new SMTPServer({
    ...{ authOptional: true, disabledCommands: ['AUTH', 'STARTTLS'], logger: false },
    onRcptTo({ address }, _session, done) {
      const no = address.startsWith('nobody')
      done(no ? Object.assign(new Error('No such mailbox'), { responseCode: 550 }) : null)
    },
    onData(stream, _session, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => (taken.push(Buffer.concat(pieces).toString('latin1')), done()))
    },
  })
  office.listen(0, '127.0.0.1')
  await once(office.server, 'listening')
  mailbox = () => '% OK done\r\n'
  imap = createServer((socket) => {
    socket.on('error', () => {})
    socket.write('* OK [CAPABILITY IMAP4rev1 SPECIAL-USE] here\r\n')
    socket.on('data', (line) => {
      const [tag, ...rest] = line.toString().trim().split(' ')
      socket.write(mailbox(rest.join(' ')).replaceAll('%', tag!))
    })
  }).listen(0, '127.0.0.1')
  await once(imap, 'listening')
  const { port } = office.server.address() as AddressInfo
  engine = madeUpEngine(db, { smtpUrl: `smtp://127.0.0.1:${port}` })
})
afterEach(() => {
  office.close(() => {})
  imap.close()
})

function own(name: string, port = (imap.address() as AddressInfo).port) {
  const address = `${name}@inkpost.example`
  return keepTrialMailbox(
    db,
    { address, host: '127.0.0.1', port, secure: 0, login: address, password: 'secret' },
    0,
  )
}
const letter = {
  ...{ subject: 'Wind', html: '<p>Wind</p>', text: 'Wind' },
  headers: { 'List-Id': 'Wind notes <wind-notes.galewright.example>' },
}
const begin = () => askTrials(db, { mailingId, version: 1 }, letter, engine.time.now)
/** Does all that is due now. */
async function goOn() {
  while (await tryDeliveries(engine));
}

/** A mailbox with one message in a folder, whatever it is called. */
const holding = (folder: string, headers: string) => (line: string) => {
  const [verb, ...rest] = line.replace(/^UID /, '').split(' ')
  if (verb === 'LIST' && rest[1] === '""') return `* LIST (\\Noselect) "/" ""\r\n% OK\r\n`
  if (verb === 'LIST')
    return `* LIST () "/" INBOX\r\n* LIST (\\Junk) "/" "Bilge"\r\n* LIST () "/" "Old"\r\n% OK\r\n`
  if (verb === 'EXAMINE') {
    holding.open = rest.join(' ').replaceAll('"', '')
    return `* 1 EXISTS\r\n* OK [UIDVALIDITY 1]\r\n* OK [UIDNEXT 8]\r\n% OK [READ-ONLY]\r\n`
  }
  if (verb === 'SEARCH') return `* SEARCH${holding.open === folder ? ' 7' : ''}\r\n% OK\r\n`
  if (verb === 'FETCH')
    return `* 1 FETCH (UID 7 BODY[HEADER] {${headers.length}}\r\n${headers})\r\n% OK\r\n`
  return '% OK done\r\n'
}
holding.open = ''

test('a letter goes out with a subscriber’s headers, and is found where the provider put it', async () => {
  own('tove')
  mailbox = holding('Bilge', 'Authentication-Results: mx; spf=pass; dkim=fail\r\n\r\n')
  expect(begin()).toBe(1)
  await goOn()
  expect(taken).toHaveLength(1)
  expect(taken[0]).toMatch(/^List-ID: Wind notes <wind-notes\.galewright\.example>\r$/im)
  expect(trialsOf(db, mailingId)).toMatchObject([{ state: 'sent' }])
  engine.time.now += 2_000
  await goOn()
  expect(trialsOf(db, mailingId)).toMatchObject([
    { state: 'junk', folder: 'Bilge', spf: 'pass', dkim: 'fail', dmarc: null, took: 2_000 },
  ])
  // Tried again it starts anew.
  mailbox = holding('INBOX', 'Subject: Wind\r\n\r\n')
  begin()
  expect(trialsOf(db, mailingId)).toMatchObject([{ state: 'waiting', folder: null }])
  await goOn()
  engine.time.now += 2_000
  await goOn()
  expect(trialsOf(db, mailingId)).toMatchObject([{ state: 'inbox', folder: 'INBOX' }])
})

test('what does not come is looked for in five minutes, less and less often', async () => {
  own('tove')
  let looks = 0
  mailbox = (line) => (line.startsWith('LOGIN') && looks++, holding('nowhere', '')(line))
  begin()
  for (let passed = 0; passed <= TRIAL_ENDS; passed += 1_000) {
    await goOn()
    engine.time.now += 1_000
  }
  engine.time.now += 30_000
  await goOn()
  expect(trialsOf(db, mailingId)).toMatchObject([{ state: 'missing', words: null }])
  expect(looks).toBeGreaterThan(8)
  expect(looks).toBeLessThan(30)
}, 30_000)

test('who is refused, and a mailbox that does not open, say so in words', async () => {
  own('nobody')
  own('locked')
  mailbox = (line) => (line.startsWith('LOGIN') ? '% NO wrong password\r\n' : '% OK\r\n')
  begin()
  await goOn()
  engine.time.now += 2_000
  await goOn()
  expect(trialsOf(db, mailingId)).toMatchObject([
    { state: 'refused', words: expect.stringContaining('550') as string },
    {
      state: 'sent',
      words: expect.stringMatching(/does not let us in: .*wrong password/) as string,
    },
  ])
  engine.time.now += TRIAL_ENDS
  await goOn()
  expect(trialsOf(db, mailingId)[1]).toMatchObject({ state: 'closed' })
})

test('a send that its engine did not live to tell of is begun anew; two engines send once', async () => {
  own('tove')
  begin()
  db.sqlite
    .prepare("update trials set state = 'sending', sent_host = ?")
    .run(engine.time.now - 59_000)
  await goOn()
  expect(taken).toHaveLength(0)
  engine.time.now += 2_000
  await Promise.all([tryDeliveries(engine), tryDeliveries({ ...engine, id: 'engine-2' })])
  expect(taken).toHaveLength(1)
})

test('a mailbox that was taken away gets nothing, and can come back', () => {
  const id = own('tove')
  expect(removeTrialMailbox(db, id, 5)).toBe(true)
  expect(begin()).toBe(0)
  removeTrialMailbox(db, id, null)
  expect(begin()).toBe(1)
})
