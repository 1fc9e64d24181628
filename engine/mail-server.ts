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

/** Before these commands are answered no message can have been taken (RFC 5321, 3.3). */
const beforeTheMessage = new Set([
  'CONN',
  'API',
  'EHLO',
  'HELO',
  'STARTTLS',
  'AUTH',
  'MAIL FROM',
  'RCPT TO',
])

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
        await transport.sendMail({ envelope: { from, to: [to] }, raw })
        return { kind: 'accepted' }
      } catch (error) {
        return answerOf(
          error as Error & { responseCode?: number; response?: string; command?: string },
        )
      }
    },
    close: () => transport.close(),
  }
}

function answerOf(
  error: Error & { responseCode?: number; response?: string; command?: string },
): MailServerAnswer {
  const early = error.command !== undefined && beforeTheMessage.has(error.command)
  const spoken =
    error.command === 'MAIL FROM' || error.command === 'RCPT TO' || error.command === 'DATA'
  if (error.responseCode && spoken)
    return { kind: 'refused', code: error.responseCode, text: error.response ?? error.message }
  return { kind: early ? 'unreachable' : 'unknown', why: error.message }
}
