import MailComposer from 'nodemailer/lib/mail-composer'
import { readAccount } from '../database/account'
import { rawMessage, type RawMessage } from '../core/delivery'
import type { Engine } from './engine'
import { connectMailServer } from './mail-server'

/** A letter that is the same for everybody it goes to, and of which nothing is counted. */
export interface PlainLetter {
  subject: string
  html: string
  text: string
  /** Headers besides the usual. */
  headers?: Record<string, string>
}

/**
 * Sends a letter to some addresses, one after the other. `sent` is told how many went out and says whether to stop
 * there; how many did. Throws with the address and the server's words where one is not taken.
 */
export async function sendLetter(
  { db, settings, clock }: Pick<Engine, 'db' | 'settings' | 'clock'>,
  to: readonly string[],
  letter: PlainLetter,
  sent: (many: number) => boolean = () => false,
): Promise<number> {
  if (settings.smtpUrl === null) throw new Error('No mail server is set, so nothing goes out.')
  const account = readAccount(db)!
  const server = connectMailServer(settings, account, clock)
  try {
    for (const [i, address] of to.entries()) {
      const from = { name: account.sender_name, address: account.sender_address }
      const raw = await messageOf({ from, to: address, ...letter })
      const answer = await server.send(account.sender_address, address, raw)
      if (answer.kind !== 'accepted')
        throw new Error(
          `${address}: ${answer.kind === 'refused' ? `refused (${answer.code} ${answer.text})` : answer.why}`,
        )
      if (sent(i + 1)) return i + 1
    }
    return to.length
  } finally {
    server.close()
  }
}

/** A letter with its sender and recipient, with HTML or without, and what is attached to it. */
type Composed = Omit<PlainLetter, 'html'> & {
  html?: string
  from: { name: string; address: string }
  to: string
  attached?: { name: string; content: Buffer }[]
}

/** The bytes of a message: ASCII, CRLF, and no line that begins with a dot, since all of it is base64. */
export async function messageOf(mail: Composed): Promise<RawMessage> {
  const { from, to, subject, html, text: plain, headers, attached = [] } = mail
  const part = (contentType: string, content: string) => ({
    contentType: `${contentType}; charset=utf-8`,
    content,
    contentTransferEncoding: 'base64' as const,
  })
  const alternatives = [
    part('text/plain', plain),
    ...(html === undefined ? [] : [part('text/html', html)]),
  ]
  const attachments = attached.map(({ name: filename, content }) => ({
    ...{ filename, content },
    contentType: 'application/octet-stream',
    contentTransferEncoding: 'base64' as const,
  }))
  const composed = new MailComposer({
    ...{ from, to, subject, headers, alternatives, attachments },
    newline: 'windows',
  })
  const bytes = await composed.compile().build()
  const text = bytes.toString('latin1')
  return rawMessage(text.endsWith('\r\n') ? text : `${text}\r\n`)
}
