import { pauseUntil, pauseWeeks, WEEKLY } from '../core/readers'
import { HOUR } from '../core/time'
import { all, q, type Database } from '../database'
import { changeField, changeList } from '../database/people'
import { limitMail, pauseMail } from '../database/readers'
import type { Chance } from './chance'
import type { DemoLists } from './people'

/** What readers are told of the lists, what they may change, and who asked for less mail after the letter they got last. */
export function makeWishes(db: Database, chance: Chance, lists: DemoLists, now: number) {
  const told = [
    [lists.windNotes, 'Where the wind will be, and what to fly in it', 'every Tuesday'],
    [lists.workshop, 'Courses, repair days and what is on the bench', 'about twice a month'],
    [lists.offers, 'What costs less for a while, before it stands in the shop', 'now and then'],
  ] as const
  for (const [id, public_about, public_often] of told)
    changeList(db, id, { public_about, public_often, offered: 1 })
  for (const key of ['town', 'flying_style', 'birthday', 'line_hand'])
    changeField(db, key, { readers: 1 })
  const readers = all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('facts', 'facts.person_id', 'recipients.person_id')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select(['recipients.person_id', 'recipients.mailing_id', 'opened_at', 'keenness'])
      .where('opened_at', '>', now - 30 * 24 * HOUR)
      .where('mailings.sequence_id', 'is', null)
      .whereRef('accepted_at', '=', 'last_sent_at')
      .orderBy('recipients.person_id'),
  )
  for (const { person_id, mailing_id, opened_at } of readers) {
    const lot = chance.next()
    if (lot > 0.03) continue
    const at = Math.min(now, Math.floor(opened_at! + HOUR * chance.next()))
    const from = { mailingId: mailing_id, ip: null, agent: null }
    if (lot < 0.02)
      limitMail(
        db,
        person_id,
        WEEKLY,
        { ...from, wording: 'At most one letter a week', detail: 'At most one a week' },
        at,
      )
    else {
      const weeks = chance.pick(pauseWeeks)
      const [wording, detail] = [`Pause for ${weeks} weeks`, `Mail paused for ${weeks} weeks`]
      pauseMail(db, person_id, pauseUntil(weeks, at), { ...from, wording, detail }, at)
    }
  }
}
