import { linksOf } from '../../core/letters'
import { mailingsOfMap } from '../../core/sequences'
import type { Database } from '../../database'
import { letterOf } from '../../database/letters'
import { mailingById } from '../../database/mailings'
import type { Sequence } from '../../database/sequences'

/** The links of a sequence's mails that can be asked for, each address once a mail. */
export function linksOfSequence(db: Database, { map }: Sequence) {
  return mailingsOfMap(map).flatMap((mailingId) => {
    const mailing = mailingById(db, mailingId)
    const links = mailing ? linksOf(letterOf(db, mailing.letter_id).document) : []
    const byUrl = new Map(links.map(({ url, words }) => [url, words]))
    byUrl.delete('')
    return [...byUrl].map(([url, words]) => ({ mailingId, url, words }))
  })
}
