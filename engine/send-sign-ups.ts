import { nextAttempt } from '../core/delivery'
import { signUpMail } from '../cases/sign-ups'
import { readAccount } from '../database/account'
import {
  moveSending,
  nextSendingToMail,
  remindDue,
  sendingMailed,
  sendingNotMailed,
  sendingsOver,
} from '../database/sign-ups'
import { domainsWithMail } from './domains-with-mail'
import type { Engine, Work } from './engine'
import { connectMailServer } from './mail-server'
import { messageOf } from './send-letter'

/** So many lapse in one step. */
const AT_ONCE = 200

/**
 * Mails who sent in a sign-up's form: to confirm it, once more after two days, that they are on the list already, and what
 * was promised. Before the first mail the domain is looked at: what is doubtful is kept for a look instead. What nobody
 * confirmed in time lapses.
 */
export const sendSignUps: Work = async (engine) => {
  const { db, settings, clock } = engine
  const now = clock()
  const over = sendingsOver(db, now, AT_ONCE)
  for (const sending of over) moveSending(db, sending, 'lapse', now)
  remindDue(db, now)
  const sending = nextSendingToMail(db, now)
  const account = readAccount(db)
  if (!sending || !account) return over.length === AT_ONCE
  const mail = signUpMail(db, sending, settings.url)
  if (!mail) {
    sendingNotMailed(db, sending.id, 'Its form is gone.', null)
    return true
  }
  const again = (answer: string) => {
    const due = nextAttempt(sending.tries + 1, sending.at, now, Math.random())
    // Later than the link works it need not go out.
    const late = due === null || (sending.over_due !== null && due >= sending.over_due)
    sendingNotMailed(db, sending.id, answer, late ? null : due)
  }
  if (settings.smtpUrl === null) {
    again('No mail server is set, so nothing goes out.')
    return true
  }
  if (await isDoubtful(engine, sending)) return true
  const server = connectMailServer(settings, account, clock)
  try {
    const from = { name: account.sender_name, address: account.sender_address }
    // Made by a program in answer to somebody (RFC 3834); what comes back of it is no bounce of a mailing.
    const headers = { 'Auto-Submitted': 'auto-replied' }
    const raw = await messageOf({ from, to: sending.address, ...mail, headers })
    const answer = await server.send('', sending.address, raw, account.sender_address)
    if (answer.kind === 'accepted') sendingMailed(db, sending, now)
    else if (answer.kind === 'refused' && answer.code >= 500)
      sendingNotMailed(db, sending.id, answer.text, null)
    else again(answer.kind === 'refused' ? answer.text : answer.why)
  } finally {
    server.close()
  }
  return true
}

/** Whether nobody writes from the domain, as a list and name servers say; then it is kept for a look, unless it was let through. */
async function isDoubtful(
  engine: Engine,
  sending: NonNullable<ReturnType<typeof nextSendingToMail>>,
): Promise<boolean> {
  if (sending.mail !== 'confirm' || sending.mailed > 0 || sending.doubt !== null) return false
  const domain = sending.normal.slice(sending.normal.lastIndexOf('@') + 1)
  const doubt = await domainsWithMail(engine).doubt(domain)
  if (!doubt) return false
  moveSending(engine.db, sending, 'doubt', engine.clock(), { doubt })
  return true
}
