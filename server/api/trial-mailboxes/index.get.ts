import { trialMailboxes } from '~~/database/mailings'

/** The mailboxes letters are tried in. Their passwords stay here. */
export default defineEventHandler(() =>
  trialMailboxes(satchel().db).map(({ id, address, host, port, secure }) => ({
    id,
    address,
    host,
    port,
    secure: secure === 1,
  })),
)
