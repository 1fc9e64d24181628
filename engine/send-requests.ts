import { nextAttempt } from '../core/delivery'
import { requestMail } from '../cases/readers'
import { readAccount } from '../database/account'
import { nextRequestToMail, requestMailed, requestNotMailed } from '../database/readers'
import type { Work } from './engine'
import { connectMailServer } from './mail-server'
import { messageOf } from './send-letter'

/**
 * Mails the links by which readers confirm what they asked for on their own page. With an empty return path, and marked as
 * made by a program (RFC 3834): what comes back of it is no bounce of a mailing.
 */
export const sendRequests: Work = async ({ db, settings, clock, hostClock }) => {
  const request = nextRequestToMail(db, hostClock())
  const account = readAccount(db)
  if (!request || !account) return false
  const again = (answer: string) => {
    const due = nextAttempt(request.tries + 1, request.asked_at, hostClock(), Math.random())
    // Later than the link works it need not go out.
    requestNotMailed(db, request.id, answer, due !== null && due < request.until ? due : null)
  }
  if (settings.smtpUrl === null) {
    again('No mail server is set, so nothing goes out.')
    return true
  }
  const server = connectMailServer(settings, account, clock)
  try {
    const from = { name: account.sender_name, address: account.sender_address }
    const mail = requestMail(db, request, settings.url)
    const headers = { 'Auto-Submitted': 'auto-replied' }
    const raw = await messageOf({ from, to: request.sent_to, ...mail, headers })
    const answer = await server.send('', request.sent_to, raw, account.sender_address)
    if (answer.kind === 'accepted') requestMailed(db, request.id)
    else if (answer.kind === 'refused' && answer.code >= 500)
      requestNotMailed(db, request.id, answer.text, null)
    else again(answer.kind === 'refused' ? answer.text : answer.why)
  } finally {
    server.close()
  }
  return true
}
