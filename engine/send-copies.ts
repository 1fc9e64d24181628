import MailComposer from 'nodemailer/lib/mail-composer'
import { readAccount } from '../database/account'
import { jobProgress } from '../database/jobs'
import type { JobWork } from './engine'
import { connectMailServer } from './mail-server'

/** A letter as one person reads it, to be looked at in real mailboxes. */
export interface Copies {
  to: string[]
  subject: string
  html: string
  text: string
}

/** Sends copies of a letter: nothing in them is counted, and nobody is a recipient by getting one. */
export const sendCopiesJob: JobWork = async ({ db, settings }, job) => {
  const { to, subject, html, text } = JSON.parse(job.payload) as Copies
  if (settings.smtpUrl === null) throw new Error('No mail server is set, so nothing goes out.')
  const account = readAccount(db)!
  const server = connectMailServer(settings, account)
  try {
    // A copy that went out before the engine was ended is not sent again.
    for (let i = job.done; i < to.length; i++) {
      const address = to[i]!
      const from = { name: account.sender_name, address: account.sender_address }
      const raw = await messageOf({ from, to: address, subject: `Copy: ${subject}`, html, text })
      const answer = await server.send(account.sender_address, address, raw)
      if (answer.kind !== 'accepted')
        throw new Error(
          `${address}: ${answer.kind === 'refused' ? `refused (${answer.code} ${answer.text})` : answer.why}`,
        )
      if (jobProgress(db, job.id, i + 1, to.length).cancel) return true
    }
    return false
  } finally {
    server.close()
  }
}

/** The bytes of a message: ASCII, CRLF, and no line that begins with a dot, since all of it is base64. */
async function messageOf(mail: {
  from: { name: string; address: string }
  to: string
  subject: string
  html: string
  text: string
}): Promise<string> {
  const { from, to, subject, html, text: plain } = mail
  const part = (contentType: string, content: string) => ({
    contentType: `${contentType}; charset=utf-8`,
    content,
    contentTransferEncoding: 'base64' as const,
  })
  const alternatives = [part('text/plain', plain), part('text/html', html)]
  const composed = new MailComposer({ from, to, subject, alternatives, newline: 'windows' })
  const bytes = await composed.compile().build()
  const text = bytes.toString('latin1')
  return text.endsWith('\r\n') ? text : `${text}\r\n`
}
