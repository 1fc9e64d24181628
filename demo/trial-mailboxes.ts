import { MINUTE } from '../core/time'
import { one, q, type Database } from '../database'
import { letterOf } from '../database/letters'
import { askTrials, changeTrial, keepTrialMailbox, trialMailboxes } from '../database/mailings'

const providers = ['harbourmail', 'inkpost', 'oldmill', 'workdesk', 'veilpost']

/** The kite makers' own mailboxes at the practice providers, and what they saw when they tried the next Wind notes there. */
export function addTrialMailboxes(db: Database, imapPort: number, now: number) {
  for (const name of providers) {
    const address = `galewright.trial@${name}.example`
    keepTrialMailbox(
      db,
      {
        ...{ address, host: '127.0.0.1', port: imapPort, secure: 0 },
        ...{ login: address, password: 'practice' },
      },
      now,
    )
  }
  tryWindNotes(db, now - 50 * MINUTE)
}

function tryWindNotes(db: Database, at: number) {
  const mailing = one(
    db,
    q.selectFrom('mailings').select(['id', 'letter_id']).where('name', '=', 'Wind notes 47'),
  )!
  const { version } = letterOf(db, mailing.letter_id)
  const letter = { subject: '', html: '', text: '', headers: {} }
  askTrials(db, { mailingId: mailing.id, version }, letter, at)
  for (const { id } of trialMailboxes(db))
    changeTrial(
      db,
      { mailing_id: mailing.id, mailbox_id: id },
      {
        ...{ state: 'inbox', folder: 'INBOX', spf: 'pass', dkim: 'pass', dmarc: 'pass' },
        ...{ letter: null, sent_host: at, found_host: at + 1_400 },
      },
    )
}
