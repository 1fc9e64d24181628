import type { Database } from '../database'
import { keepTrialMailbox } from '../database/trials'

const providers = ['harbourmail', 'inkpost', 'oldmill', 'workdesk', 'veilpost']

/** The kite makers' own mailboxes at the practice providers, in which they try their letters. */
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
}
