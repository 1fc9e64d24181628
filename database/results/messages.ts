import { nameOrAddress } from '../../core/people'
import { sql } from 'kysely'
import { recipientStates, type RecipientState } from '../../core/delivery'
import { MESSAGES_SHOWN, type Message, type MessagesAsked } from '../../core/results'
import { totalsOf } from '../mailings'
import { chosenPeople } from '../people'
import { all, q, type Database } from '../query'

/** A mailing's messages one by one, the newest first, and whether there are more behind them. */
export function messagesOf(
  db: Database,
  mailingId: number,
  { state, to, offset }: MessagesAsked,
): { messages: Message[]; more: boolean } {
  const found = all(
    db,
    q
      .selectFrom('recipients as r')
      .leftJoin('people as p', 'p.id', 'r.person_id')
      .select(['r.person_id', 'r.round', 'r.state', 'r.at', 'r.answer'])
      .select(['r.opened_at', 'r.clicked_at', 'r.replied_at', 'r.left_at'])
      .select(['p.first_name', 'p.last_name', 'p.address'])
      .where('r.mailing_id', '=', mailingId)
      .$if(state !== null, (query) => query.where('r.state', '=', state as RecipientState))
      .$if(to !== null, (query) =>
        query.where(chosenPeople(db, { search: to! }, sql.ref('r.person_id'))),
      )
      .orderBy('r.at', 'desc')
      .orderBy('r.person_id')
      .orderBy('r.round')
      .limit(MESSAGES_SHOWN + 1)
      .offset(offset),
  )
  const messages = found.slice(0, MESSAGES_SHOWN).map((row) => {
    const { first_name, last_name, address, ...message } = row
    return { ...message, name: nameOrAddress({ first_name, last_name, address }) }
  })
  return { messages, more: found.length > MESSAGES_SHOWN }
}

/** How many messages of a mailing stand where, by the states in which there are any. */
export function messageCounts(db: Database, mailingId: number): { state: string; many: number }[] {
  const totals = totalsOf(db, mailingId)
  return recipientStates.flatMap((state) => {
    const many = totals?.[state] ?? 0
    return many > 0 ? [{ state, many }] : []
  })
}
