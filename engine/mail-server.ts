import { createPrivateKey, sign as signBytes } from 'node:crypto'
import type { Readable, Transform } from 'node:stream'
import { bytesOf, signMessage, type RawMessage, type SignText } from '../core/delivery'
import { parseConnectionUrl } from 'nodemailer/lib/shared'
import SMTPConnection from 'nodemailer/lib/smtp-connection'
import type { Clock } from '../core/time'
import type { Account } from '../database/account'
import type { EngineSettings } from './engine'

/** What the mail server said about one message. */
export type MailServerAnswer =
  | { kind: 'accepted' }
  | { kind: 'refused'; code: number; text: string }
  /** The conversation never came as far as the message: certainly no copy. */
  | { kind: 'unreachable'; why: string }
  /** It broke off after the message had begun to go over: there may be a copy. */
  | { kind: 'unknown'; why: string }

export interface MailServer {
  /**
   * The bytes of a message of which no line begins with a dot, signed in the name of the domain that it comes from (its
   * return path's, which is its From's). Throws where it can't be signed.
   */
  prepare(from: string, message: RawMessage): Promise<Buffer>
  /** Hands over what was prepared. Never throws. */
  handOver(from: string, to: string, bytes: Buffer): Promise<MailServerAnswer>
  /** Both at once. `signedBy`: an address of the domain that signs, where it has no return path. Never throws. */
  send(from: string, to: string, message: RawMessage, signedBy?: string): Promise<MailServerAnswer>
  close(): void
}

/** Ends a message (RFC 5321, 4.1.1.4), after the CRLF of its last line. */
const CLOSING = '.\r\n'

/**
 * A pool of connections to the mail server that signs what it sends (DKIM, RFC 6376). They are
 * nodemailer's connections; its own pool is not used, because it builds a stream of streams for each
 * message and does not tell whether a line broke before or after the message went over.
 * Whoever sends many gives a `signer` with threads of its own.
 */
export function connectMailServer(
  settings: EngineSettings,
  account: Account,
  clock: Clock,
  signer: SignText = signerWith(account.dkim_private_key),
): MailServer {
  const { auth, ...address } = parseConnectionUrl(settings.smtpUrl!)
  const options = {
    ...address,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 60_000,
  }
  const sign = settings.sign ? signer : null
  const idle: SMTPConnection[] = []
  const waiting: (() => void)[] = []
  /** The memory of messages that are over, for those to come: else all of it would pass through the collector. */
  const spare: Buffer[] = []
  let open = 0
  let closed = false

  async function prepare(from: string, message: RawMessage): Promise<Buffer> {
    const by = { domain: from.slice(from.lastIndexOf('@') + 1), selector: account.dkim_selector }
    return sign
      ? await signMessage(message, by, sign, clock(), { end: CLOSING, spare: spare.pop() })
      : bytesOf(message, { end: CLOSING, spare: spare.pop() }).bytes
  }

  async function send(
    from: string,
    to: string,
    message: RawMessage,
    signedBy = from,
  ): Promise<MailServerAnswer> {
    try {
      return await handOver(from, to, await prepare(signedBy, message))
    } catch (error) {
      return {
        kind: 'unreachable',
        why: `the message can’t be signed: ${(error as Error).message}`,
      }
    }
  }

  async function handOver(from: string, to: string, bytes: Buffer): Promise<MailServerAnswer> {
    while (idle.length === 0 && open >= settings.connections)
      await new Promise<void>((free) => waiting.push(free))
    for (;;) {
      const kept = idle.pop()
      const answer = await converse(kept ?? null, from, to, bytes)
      // A line that was kept and turns out to be dead says nothing about the server.
      if (kept && answer.kind === 'unreachable' && !closed) continue
      waiting.shift()?.()
      return answer
    }
  }

  async function converse(
    kept: SMTPConnection | null,
    from: string,
    to: string,
    bytes: Buffer,
  ): Promise<MailServerAnswer> {
    let connection = kept
    let wentOver = false
    try {
      connection ??= await connect()
      const message = {
        /** Called when the server is ready for the message, not before. */
        pipe(into: Transform) {
          wentOver = true
          // Nothing in it is to be escaped, so it skips the search for dots, byte by byte, which takes
          // about a fifth of the time of sending. The closing dot is in it, so that all goes in one piece.
          into._flush = (done) => done()
          into.push(bytes)
          into.end()
          return into
        },
      } as unknown as Readable
      await called((done) => connection!.send({ from, to: [to] }, message, done))
      idle.push(connection)
      spare.push(Buffer.from(bytes.buffer))
      return { kind: 'accepted' }
    } catch (error) {
      const answer = answerOf(error as SendError, wentOver)
      if (connection && answer.kind === 'refused' && answer.code !== 421) await reset(connection)
      else connection?.close()
      return answer
    }
  }

  async function connect(): Promise<SMTPConnection> {
    const connection = new SMTPConnection(options)
    open++
    connection.once('end', () => {
      open--
      const at = idle.indexOf(connection)
      if (at >= 0) idle.splice(at, 1)
      waiting.shift()?.()
    })
    await new Promise<void>((resolve, reject) => {
      connection.on('error', reject)
      connection.once('end', () => reject(new Error('The mail server closed the line.')))
      connection.connect((error) => (error ? reject(error) : resolve()))
    })
    if (!auth || !connection.allowsAuth) return connection
    try {
      await called((done) => connection.login({ ...auth, credentials: { ...auth } }, done))
      return connection
    } catch (error) {
      connection.close()
      throw error
    }
  }

  /** After a refusal the line itself is fine: it is kept, with a clean conversation. */
  async function reset(connection: SMTPConnection) {
    try {
      await new Promise<void>((resolve, reject) => {
        // A line that breaks just now answers nothing any more.
        const broke = () => reject(new Error('The mail server closed the line.'))
        connection.once('end', broke)
        connection.reset((error) => {
          connection.off('end', broke)
          if (error) reject(error)
          else resolve()
        })
      })
      idle.push(connection)
    } catch {
      connection.close()
    }
  }

  return {
    prepare,
    handOver,
    send,
    close() {
      closed = true
      for (const connection of idle.splice(0)) connection.quit()
    },
  }
}

/** Signs by the runtime's other threads. */
function signerWith(pem: string): SignText {
  const key = createPrivateKey(pem)
  return (text) =>
    new Promise((resolve, reject) =>
      signBytes('sha256', Buffer.from(text, 'latin1'), key, (error, signature) =>
        error ? reject(error) : resolve(signature.toString('base64')),
      ),
    )
}

/** A call that ends in a callback, as a promise. */
function called(start: (done: (error?: Error | null) => void) => void): Promise<void> {
  return new Promise((resolve, reject) => start((error) => (error ? reject(error) : resolve())))
}

interface SendError extends Error {
  responseCode?: number
  response?: string
  command?: string
}

/** What an error means: certainly no copy as long as the message itself had not begun to go over. */
function answerOf(error: SendError, wentOver: boolean): MailServerAnswer {
  const why = error.response ?? error.message
  if (error.responseCode && ['MAIL FROM', 'RCPT TO', 'DATA'].includes(error.command ?? ''))
    return { kind: 'refused', code: error.responseCode, text: why }
  return { kind: wentOver ? 'unknown' : 'unreachable', why }
}
