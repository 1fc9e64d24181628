import { teamMail } from '../cases/sign-ups'
import { stepMail } from '../cases/sequences'
import { MINUTE } from '../core/time'
import { readAccount, teamAddresses, type Account } from '../database/account'
import { tellingsDue, tellingsTold } from '../database/sequences'
import { formOfVersion, sendingsToTell, sendingsTold } from '../database/sign-ups'
import type { Engine, Work } from './engine'
import { connectMailServer } from './mail-server'
import { messageOf } from './send-letter'

/** The most of whom one mail tells. */
const IN_ONE = 200
/** Where it can't be sent now, it waits. */
const AGAIN = 15 * MINUTE

/** Mails the team who has confirmed a sign-up, about each or once a day, as its form says; and who came by a step that says so. */
export const tellTeam: Work = async (engine) => {
  const account = readAccount(engine.db)
  if (!account) return false
  const signedUp = await tellOfSignUps(engine, account)
  return (await tellOfSteps(engine, account)) || signedUp
}

async function tellOfSignUps(engine: Engine, account: Account) {
  const { db, settings, clock } = engine
  const due = sendingsToTell(db, clock(), IN_ONE)
  const [first] = due
  if (!first) return false
  const tell = formOfVersion(db, first.sign_up_id, first.version)?.tell
  const told = tell?.how === 'each' ? [first] : due
  const ids = told.map(({ id }) => id)
  const later = tell?.to
    ? await mailTo(engine, account, tell.to, () => teamMail(db, told, settings.url))
    : null
  sendingsTold(db, ids, later)
  return true
}

/** One mail tells of all who came by since the last: many at once make no flood. */
async function tellOfSteps(engine: Engine, account: Account) {
  const { db, settings, clock } = engine
  const due = tellingsDue(db, clock(), IN_ONE)
  const [first] = due
  if (!first) return false
  const ids = due.map(({ id }) => id)
  // Nobody but the team is told of people: who is not of it any more is not.
  const later = teamAddresses(db).includes(first.recipient)
    ? await mailTo(engine, account, first.recipient, () => stepMail(due, settings.url))
    : null
  tellingsTold(db, ids, later)
  return true
}

/** Mails one of the team; when to try again, null: it is done, or refused for good. */
async function mailTo(
  { settings, clock }: Engine,
  account: Account,
  to: string,
  mail: () => { subject: string; text: string },
): Promise<number | null> {
  if (settings.smtpUrl === null) return clock() + AGAIN
  const server = connectMailServer(settings, account, clock)
  try {
    const raw = await messageOf({
      from: { name: account.sender_name, address: account.sender_address },
      to,
      ...mail(),
      headers: { 'Auto-Submitted': 'auto-generated' },
    })
    const answer = await server.send('', to, raw, account.sender_address)
    const refused = answer.kind === 'refused' && answer.code >= 500
    return answer.kind === 'accepted' || refused ? null : clock() + AGAIN
  } finally {
    server.close()
  }
}
