import { nextAttempt } from '../core/delivery'
import { readAccount } from '../database/account'
import {
  nextToPassOn,
  replyNotPassedOn,
  replyPassedOn,
  type ReplyToPassOn,
} from '../database/sending'
import type { Engine, Work } from './engine'
import { connectMailServer } from './mail-server'
import { messageOf } from './send-letter'

/**
 * Passes replies by people on to the sender's own address. With an empty return path, and marked as made by a program
 * (RFC 3834): nothing answers it by itself, so it never comes back in a circle.
 */
export const passOnReplies: Work = async (engine) => {
  const { db, clock, settings } = engine
  const reply = nextToPassOn(db, clock())
  const account = readAccount(db)
  if (!reply || !account) return false
  const { sender_address: to, name } = account
  const again = (note: string) =>
    replyNotPassedOn(
      db,
      reply.id,
      note,
      nextAttempt(reply.pass_on_tries + 1, reply.at, clock(), Math.random()),
    )
  if (settings.smtpUrl === null) {
    again('No mail server is set, so nothing goes out.')
    return true
  }
  const server = connectMailServer(settings, account, clock)
  try {
    const answer = await server.send('', to, await messageFor(reply, engine, { name, to }), to)
    if (answer.kind === 'accepted') replyPassedOn(db, reply.id, clock())
    else if (answer.kind === 'refused' && answer.code >= 500)
      replyNotPassedOn(db, reply.id, `${to} was refused: ${answer.code} ${answer.text}`, null)
    else again(answer.kind === 'refused' ? `${answer.code} ${answer.text}` : answer.why)
  } finally {
    server.close()
  }
  return true
}

function messageFor(
  reply: ReplyToPassOn,
  { settings: { url } }: Engine,
  { name, to }: { name: string; to: string },
) {
  const { from_name, from_address, subject, text, mailing, person_id, raw } = reply
  return messageOf({
    from: { name: `${from_name || from_address} (${name})`, address: to },
    to,
    subject: subject || '(no subject)',
    headers: {
      'Reply-To': from_address,
      'Auto-Submitted': 'auto-generated',
    },
    text: `${text}

--
${from_name ? `${from_name} <${from_address}>` : from_address} wrote this in answer to “${mailing}”.
Answer this mail to write back. On file: ${url}/people/${person_id}
`,
    attached: raw === null ? [] : [{ name: 'as it came.eml', content: Buffer.from(raw, 'latin1') }],
  })
}
