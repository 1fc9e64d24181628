import { teamMail } from '../cases/sign-ups'
import { MINUTE } from '../core/time'
import { readAccount } from '../database/account'
import { formOfVersion, sendingsToTell, sendingsTold } from '../database/sign-ups'
import type { Work } from './engine'
import { connectMailServer } from './mail-server'
import { messageOf } from './send-letter'

/** The most of whom one mail tells. */
const IN_ONE = 200
/** Where it can't be sent now, it waits. */
const AGAIN = 15 * MINUTE

/** Mails the team who has confirmed a sign-up, about each or once a day, as its form says. */
export const tellTeam: Work = async ({ db, settings, clock }) => {
  const due = sendingsToTell(db, clock(), IN_ONE)
  const account = readAccount(db)
  const [first] = due
  if (!first || !account) return false
  const tell = formOfVersion(db, first.sign_up_id, first.version)?.tell
  const told = tell?.how === 'each' ? [first] : due
  const ids = told.map(({ id }) => id)
  if (!tell?.to) {
    sendingsTold(db, ids, null)
    return true
  }
  if (settings.smtpUrl === null) {
    sendingsTold(db, ids, clock() + AGAIN)
    return true
  }
  const server = connectMailServer(settings, account, clock)
  try {
    const raw = await messageOf({
      from: { name: account.sender_name, address: account.sender_address },
      to: tell.to,
      ...teamMail(db, told, settings.url),
      headers: { 'Auto-Submitted': 'auto-generated' },
    })
    const answer = await server.send('', tell.to, raw, account.sender_address)
    const refused = answer.kind === 'refused' && answer.code >= 500
    sendingsTold(db, ids, answer.kind === 'accepted' || refused ? null : clock() + AGAIN)
  } finally {
    server.close()
  }
  return true
}
