import nodemailer from 'nodemailer'
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
  send(from: string, to: string, raw: string): Promise<MailServerAnswer>
  close(): void
}

/** A pool of connections to the mail server that signs what it sends (DKIM, RFC 6376). */
export function connectMailServer(settings: EngineSettings, account: Account): MailServer {
  const transport = nodemailer.createTransport({
    url: settings.smtpUrl!,
    pool: true,
    maxConnections: settings.connections,
    maxMessages: Infinity,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 60_000,
    disableFileAccess: true,
    disableUrlAccess: true,
    ...(settings.sign
      ? {
          dkim: {
            domainName: account.sender_address.slice(account.sender_address.indexOf('@') + 1),
            keySelector: account.dkim_selector,
            privateKey: account.dkim_private_key,
          },
        }
      : {}),
  } as Parameters<typeof nodemailer.createTransport>[0])
  return {
    async send(from, to, raw) {
      try {
        // All ASCII: as bytes it is not encoded a second time.
        await transport.sendMail({ envelope: { from, to: [to] }, raw: Buffer.from(raw, 'latin1') })
        return { kind: 'accepted' }
      } catch (error) {
        return answerOf(error as SendError)
      }
    },
    close: () => transport.close(),
  }
}

interface SendError extends Error {
  code?: string
  syscall?: string
  command?: string
  response?: string
  responseCode?: number
}

/**
 * What an error means. A line that breaks is reported in the same way before and after the message
 * went over, so only what never came to a conversation counts as certainly not sent.
 */
function answerOf(error: SendError): MailServerAnswer {
  if (error.responseCode) {
    const aboutThisMessage = ['MAIL FROM', 'RCPT TO', 'DATA'].includes(error.command ?? '')
    return aboutThisMessage
      ? { kind: 'refused', code: error.responseCode, text: error.response ?? error.message }
      : { kind: 'unreachable', why: error.response ?? error.message }
  }
  const neverConnected =
    error.syscall === 'connect' ||
    error.syscall === 'getaddrinfo' ||
    ['EDNS', 'ETLS', 'EAUTH'].includes(error.code ?? '') ||
    (error.code === 'ETIMEDOUT' &&
      /^(Connection timeout|Greeting never received)/.test(error.message))
  return { kind: neverConnected ? 'unreachable' : 'unknown', why: error.message }
}
