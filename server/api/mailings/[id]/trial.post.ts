import { encodeAddressName } from '~~/core/delivery'
import { listById } from '~~/database/people'
import { letterOf } from '~~/database/letters'
import { askTrials } from '~~/database/mailings'

/** Has the letter sent to all trial mailboxes, as the person in the query reads it and with a subscriber's headers. */
export default defineEventHandler(async (event) => {
  const { db, clock, sends } = satchel()
  if (!sends) throw refused('No mail server is set, so nothing goes out.')
  const mailing = mailingOf(event)
  const { version } = letterOf(db, mailing.letter_id)
  const { merged } = await readingOf(event)
  const { sender_address } = account()
  const domain = sender_address.slice(sender_address.lastIndexOf('@') + 1)
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  const headers = {
    ...(list && { 'List-Id': `${encodeAddressName(list.public_name)} <${list.key}.${domain}>` }),
    // Nobody has subscribed, so there is nothing to leave but by writing.
    'List-Unsubscribe': `<mailto:${sender_address}?subject=leave>`,
  }
  const of = { mailingId: mailing.id, version }
  if (!askTrials(db, of, { ...merged, headers }, clock()))
    throw refused('There are no trial mailboxes yet. Add some in Settings.')
  return { ok: true }
})
