import { linksOf, startingLetter, updateBlock, type Letter } from '../core/letters'
import { richText } from '../core/letters/rich-text'
import { q, run, transact, type Database } from '../database'
import { createMailing, moveMailing } from '../database/mailings'
import { changeSubscription } from '../database/people'

/** Puts so many made-up people on list 1. */
export function addSubscribers(db: Database, count: number, domain = 'harbourmail.example') {
  const now = Date.now()
  transact(db, () => {
    for (let i = 0; i < count; i++) {
      const normal = `reader${i}@${domain}`
      const { id } = run(
        db,
        q.insertInto('people').values({
          address: normal,
          normal,
          domain,
          first_name: i % 5 ? `Reader ${i}` : null,
          last_name: null,
          joined_at: now,
          changed_at: now,
        }),
      )
      changeSubscription(
        db,
        id,
        1,
        'subscribed',
        { act: 'person', way: 'form', wording: 'I want it.' },
        now,
      )
    }
  })
}

/** A letter without a mark, with one link. */
export function finishedLetter(subject = 'Force 5 till Sunday'): Letter {
  const letter = startingLetter()
  let { document } = letter
  document = updateBlock(document, 'title', { text: richText('The wind is back') })
  document = updateBlock(document, 'opening', {
    text: richText([
      { type: 'text', text: 'Hello ' },
      { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } },
      { type: 'text', text: ', five days of wind.' },
    ]),
  })
  document = updateBlock(document, 'action', {
    label: 'See the forecast',
    href: 'https://galewright.example/forecast',
  })
  if (linksOf(document).length !== 1) throw new Error('The letter has one link.')
  return { ...letter, subject, document }
}

/** A mailing to list 1 that is due now; its id. */
export function dueMailing(db: Database, letter: Letter = finishedLetter()): number {
  const id = createMailing(db, { name: letter.subject, listId: 1, letter }, Date.now())
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: Date.now() })
  return id
}
