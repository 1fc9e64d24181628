import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { once } from 'node:events'
import { generateKeyPairSync } from 'node:crypto'
import { SMTPServer } from 'smtp-server'
import { afterEach, expect, test } from 'vitest'
import { rawMessage } from '../core/delivery'
import type { Account } from '../database/account'
import { connectMailServer, type MailServer } from './mail-server'

let server: Server | null = null
let mail: MailServer | null = null
afterEach(() => {
  mail?.close()
  server?.close()
})

/** A mail server that answers as it is told: one line per command; `null` hangs up. */
async function serverThat(answers: (command: string) => string | null): Promise<MailServer> {
  server = createServer((socket: Socket) => {
    let inData = false
    const say = (line: string | null) =>
      line === null ? socket.destroy() : socket.write(`${line}\r\n`)
    socket.on('error', () => {})
    say(answers('GREETING'))
    socket.on('data', (piece: Buffer) => {
      for (const line of piece.toString('latin1').split('\r\n').filter(Boolean)) {
        if (inData && line !== '.') continue
        const command = inData ? 'END' : line.split(' ')[0]!.toUpperCase()
        inData = command === 'DATA' && (answers('DATA') ?? '').startsWith('354')
        say(answers(command))
      }
    })
  })
  await new Promise<void>((done) => server!.listen(0, '127.0.0.1', done))
  return connect((server.address() as AddressInfo).port)
}

function connect(port: number, sign = false): MailServer {
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 1024 })
  const account = {
    sender_address: 'hello@galewright.example',
    dkim_selector: 's',
    dkim_private_key: privateKey.export({ type: 'pkcs8', format: 'pem' }),
  } as Account
  mail = connectMailServer(
    {
      data: '',
      url: '',
      smtpUrl: `smtp://127.0.0.1:${port}`,
      webProxy: null,
      mayReach: [],
      nameServer: null,
      sendsFrom: [],
      connections: 2,
      sign,
    },
    account,
    Date.now,
  )
  return mail
}

const good: Record<string, string> = {
  GREETING: '220 here',
  EHLO: '250 here',
  MAIL: '250 ok',
  RCPT: '250 ok',
  DATA: '354 go on',
  END: '250 taken',
  QUIT: '221 bye',
  RSET: '250 ok',
}
const send = async (from: MailServer) =>
  from.send(
    'b-x@galewright.example',
    'tove@inkpost.example',
    rawMessage('Subject: x\r\n\r\nHello.\r\n'),
  )

test('what it takes is accepted', async () => {
  expect(await send(await serverThat((command) => good[command] ?? '500 what'))).toEqual({
    kind: 'accepted',
  })
})

test.each([
  ['RCPT', '550 5.1.1 no such mailbox', 550],
  ['RCPT', '451 4.7.1 come again', 451],
  ['MAIL', '421 4.7.0 slow down', 421],
  ['END', '554 5.7.1 spam', 554],
])('a refusal at %s is told with its code: %s', async (at, line, code) => {
  const answer = await send(
    await serverThat((command) => (command === at ? line : (good[command] ?? '250 ok'))),
  )
  expect(answer).toMatchObject({
    kind: 'refused',
    code,
    text: expect.stringContaining(line.slice(4, 9)),
  })
})

test('a server that is not there, or refuses to talk, certainly has no copy', async () => {
  expect(await send(connect(9))).toMatchObject({ kind: 'unreachable' })
  expect(
    await send(await serverThat((command) => (command === 'GREETING' ? '554 no' : '250 ok'))),
  ).toMatchObject({ kind: 'unreachable' })
})

test('a conversation that breaks off after the message went over may have left a copy', async () => {
  expect(
    await send(
      await serverThat((command) => (command === 'END' ? null : (good[command] ?? '250 ok'))),
    ),
  ).toMatchObject({ kind: 'unknown' })
})

test.each(['EHLO', 'MAIL', 'RCPT', 'DATA'])(
  'a line that breaks at %s, before the message, certainly left no copy',
  async (at) => {
    expect(
      await send(await serverThat((command) => (command === at ? null : (good[command] ?? '250')))),
    ).toMatchObject({ kind: 'unreachable' })
  },
)

test('a kept line that turns out to be dead is replaced without a word', async () => {
  let conversations = 0
  const from = await serverThat((command) => {
    if (command === 'GREETING') conversations++
    return command === 'MAIL' && conversations === 1 && sent > 0 ? null : (good[command] ?? '250')
  })
  let sent = 0
  expect(await send(from)).toEqual({ kind: 'accepted' })
  sent++
  expect(await send(from)).toEqual({ kind: 'accepted' })
  expect(conversations).toBe(2)
})

test('never more lines are open than there may be, and everybody gets their turn', async () => {
  let open = 0
  let most = 0
  const from = await serverThat((command) => {
    if (command === 'GREETING') most = Math.max(most, ++open)
    return good[command] ?? '250 ok'
  })
  const answers = await Promise.all(Array.from({ length: 30 }, () => send(from)))
  expect(answers.every(({ kind }) => kind === 'accepted')).toBe(true)
  expect(most).toBe(2)
})

test('each message is signed in the name of the domain that it comes from', async () => {
  const from = connect(9, true)
  const message = rawMessage('From: x@elsewhere.example\r\nSubject: x\r\n\r\nHello.\r\n')
  for (const domain of ['galewright.example', 'elsewhere.example'])
    expect((await from.prepare(`b-x@${domain}`, message)).toString('latin1')).toContain(
      `d=${domain};`,
    )
})

test.each([
  ['as it is', false],
  ['signed', true],
])('a message of any size arrives to the byte: %s', async (_, sign) => {
  const arrived: string[] = []
  const real = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onData(stream, _session, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        arrived.push(Buffer.concat(pieces).toString('latin1'))
        done()
      })
    },
  })
  real.listen(0, '127.0.0.1')
  await once(real.server, 'listening')
  const from = connect((real.server.address() as AddressInfo).port, sign)
  const messages = [10, 16_383, 16_384, 300_000].map(
    (length) =>
      `Subject: ${length}\r\n\r\n${`${'x'.repeat(70)}\r\n`.repeat(Math.ceil(length / 72))}`,
  )
  for (const raw of messages)
    expect(
      await from.send('b@galewright.example', 'tove@inkpost.example', rawMessage(raw)),
    ).toEqual({
      kind: 'accepted',
    })
  const withoutSignature = arrived.map((raw) =>
    raw.replace(/^DKIM-Signature:(?:.*\r\n[ \t])*.*\r\n/, ''),
  )
  expect(withoutSignature).toEqual(messages)
  expect(arrived.every((raw) => raw.startsWith('DKIM-Signature:') === sign)).toBe(true)
  real.close(() => {})
})
