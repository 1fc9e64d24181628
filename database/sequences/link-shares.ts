import { linksOf } from '../../core/letters'
import { linkIn } from '../../core/rehearsal'
import { happeningsOf, mailingsOfStep, stepsInOrder, type SequenceMap } from '../../core/sequences'
import { wholeLetterOf } from '../letters'
import { mailingById } from '../mailings'
import { all, one, q, type Database } from '../query'

/** As much as so many who clicked, what the letter looks like weighs: each of its links alike. */
const LETTER_WEIGHS = 10

/**
 * Of those who click in a mail, the share that clicks on each link that maps ask for, by {@link linkIn}: what those did who
 * clicked in it so far, shrunk towards one in as many as there are links in its letter.
 */
export function linkShares(
  db: Database,
  maps: readonly SequenceMap[],
): Readonly<Record<string, number>> {
  const urls = new Set(
    maps
      .flatMap(happeningsOf)
      .flatMap((what) => (what.is === 'clicked' && what.link ? [what.link] : [])),
  )
  if (urls.size === 0) return {}
  const shares: Record<string, number> = {}
  for (const { id, step } of maps.flatMap(stepsInOrder)) {
    const mailings = mailingsOfStep(step)
    for (const url of mailings.length ? urls : [])
      shares[linkIn(id, url)] ??=
        mailings.reduce((sum, mailing) => sum + shareOf(db, mailing, url), 0) / mailings.length
  }
  return shares
}

function shareOf(db: Database, mailingId: number, url: string): number {
  const mailing = mailingById(db, mailingId)
  if (!mailing) return 0
  const clicked =
    one(db, q.selectFrom('mailing_totals').select('clicked').where('mailing_id', '=', mailingId))
      ?.clicked ?? 0
  const followed = all(
    db,
    q
      .selectFrom('mailing_links as link')
      .innerJoin('mailing_link_totals as total', (join) =>
        join.onRef('total.mailing_id', '=', 'link.mailing_id').onRef('total.no', '=', 'link.no'),
      )
      .select('total.people')
      .where('link.mailing_id', '=', mailingId)
      .where('link.url', '=', url),
  )
  // Whoever clicked on two links to one address counts once at most.
  const many = Math.min(
    clicked,
    followed.reduce((sum, { people }) => sum + people, 0),
  )
  const links = linksOf(wholeLetterOf(db, mailing.letter_id).document)
  const looks = links.filter((link) => link.url === url).length / Math.max(1, links.length)
  return (many + LETTER_WEIGHS * looks) / (clicked + LETTER_WEIGHS)
}
