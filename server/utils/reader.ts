import type { H3Event } from 'h3'
import { readToken } from '~~/core/delivery'
import { readerPageHtml, type Notice, type Told } from '~~/core/readers'
import { mailingById } from '~~/database/mailings'
import { personDetails, personNow } from '~~/database/people'
import { readerPage, toldTo } from '~~/cases/readers'

/** Whose own page it is, by which mailing's link they came (null: by none), and how they are spoken to. */
export interface Reader {
  token: string
  personId: number
  mailingId: number | null
  /** Of which of their rounds in the mailing's sequence the link was. */
  round: number
  told: Told
}

/** The reader that a link to their own page names; null where it is none of ours, or they are not on file any more. */
export function readerOf(event: H3Event): Reader | null {
  const { db } = satchel()
  const token = getRouterParam(event, 'token')!
  const of = readToken(publicTokens(), 'reader', token)
  const personId = of && personNow(db, of.personId)
  if (!of || !personId || !personDetails(db, personId)) return null
  const mailing = of.mailingId ? mailingById(db, of.mailingId) : undefined
  return {
    token,
    personId,
    mailingId: mailing?.id ?? null,
    round: of.round,
    told: toldTo(db, personId, mailing?.list_id ?? null),
  }
}

/** Their page as it stands, with what is to be said at its head and what they wrote that was not taken. */
export function answerReader(
  event: H3Event,
  { personId, told }: Reader,
  notice: Notice | null = null,
  typed: Readonly<Record<string, string>> = {},
): string {
  const { db, clock } = satchel()
  return publicPage(event, {
    title: told.plain('pageTitle'),
    body: readerPageHtml(readerPage(db, personId, clock())!, told, notice, typed),
    language: told.language,
    status: notice?.kind === 'fault' ? 422 : 200,
    wide: true,
  })
}
