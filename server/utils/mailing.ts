import type { H3Event } from 'h3'
import { mailingById, type Mailing } from '~~/database/mailings'

/** The mailing a request is about. */
export function mailingOf(event: H3Event): Mailing {
  const mailing = mailingById(satchel().db, idOf(event))
  if (!mailing) throw notFound('This mailing is not on file.')
  return mailing
}

/** A mailing that goes out by itself, so that it can be scheduled, paused and cancelled. */
export function dispatchedMailingOf(event: H3Event): Mailing {
  const mailing = mailingOf(event)
  if (mailing.sequence_id !== null)
    throw refused('This mail goes out by its sequence. Start, pause or end that instead.')
  return mailing
}

/** A mailing that can still be changed: it has not begun to go out. */
export function unsentMailingOf(event: H3Event): Mailing {
  const mailing = mailingOf(event)
  if (mailing.started_at !== null)
    throw refused('This mailing has begun to go out and can’t be changed any more.')
  return mailing
}
