import { DAY, MINUTE } from '../core/time'
import { all, q, type Database } from '../database'
import { addReply, replyPassedOn } from '../database/sending'
import type { Chance } from './chance'

/** What readers wrote in answer to the latest mailings. */
const words = [
  'The hour by hour table is just what I wanted. Could it have the tides, too?',
  'I flew the new delta on Sunday: steady as a table. Thank you for the advice!',
  'Is the repair day also for four-line kites? I would bring two.',
  'Nine of us are coming to the beach on Saturday. Is there room to park?',
  'You wrote force 5 for Thursday, and I had 7. My sail is in the dunes somewhere.',
  'Do you ship to the islands? The shop did not say.',
  'My son has read your letter about knots to the whole family at breakfast.',
  'The picture of the blue kite did not load for me, the others did.',
  'Which bridle would you take for a beginner of seventy?',
  'Please write about winter storage one day.',
]

/** Some of those who clicked in the newest mailings wrote back. */
export function makeReplies(db: Database, chance: Chance, now: number) {
  const clicked = all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .select(['recipients.mailing_id', 'recipients.person_id', 'clicked_at'])
      .select(['address', 'first_name', 'last_name', 'letters.subject'])
      .where('clicked_at', '>', now - 40 * DAY)
      .where('mailings.sequence_id', 'is', null)
      .orderBy('clicked_at')
      .orderBy('recipients.person_id'),
  )
  let n = 0
  for (const one of clicked) {
    if (chance.next() > 0.02) continue
    const at = one.clicked_at! + (3 + 40 * chance.next()) * MINUTE
    if (at > now) continue
    const id = addReply(
      db,
      {
        mailingId: one.mailing_id,
        personId: one.person_id,
        round: 0,
        from: {
          name: [one.first_name, one.last_name].filter(Boolean).join(' '),
          address: one.address,
        },
        subject: `Re: ${one.subject}`,
        text: words[n++ % words.length]!,
        reportId: null,
      },
      Math.floor(at),
    )
    replyPassedOn(db, id, Math.floor(at) + MINUTE)
  }
}
