import type { H3Event } from 'h3'
import { makeToken, readToken } from '~~/core/delivery'
import { isReaderLanguage, toldIn, type ReaderLanguage } from '~~/core/readers'
import {
  drawnLook,
  firstLanguage,
  partsOf,
  plainFormHtml,
  testedVersion,
  type Drawing,
  type SignUpForm,
} from '~~/core/sign-ups'
import { pictureShapes } from '~~/database/letters'
import { readFields } from '~~/database/people'
import { readerWords } from '~~/database/readers'
import {
  formOfVersion,
  liveSignUp,
  runningTest,
  visitorOf,
  type Published,
  type SignUp,
} from '~~/database/sign-ups'
import { dayOf } from '~~/core/time'

/** What is published under a key now; null where nothing can be signed up for there. */
export function liveFormOf(event: H3Event) {
  const key = getRouterParam(event, 'key') ?? ''
  const live = /^[\w-]{1,40}$/.test(key) ? liveSignUp(satchel().db, key) : null
  return live?.signUp.state === 'live' ? byLot(event, live) : null
}
export type LiveForm = Published

/** What somebody sees of a form: what is published, or where versions are tested, that of their lot. */
export function byLot(event: H3Event, live: LiveForm): LiveForm {
  const { db, clock } = satchel()
  const test = runningTest(db, live.signUp.id)
  const { ip, agent } = fromWhere(event)
  if (!test || !ip || !agent) return live
  const visitor = visitorOf(db, { ip, agent }, dayOf(clock(), account().zone))
  return formSeen(live, testedVersion(test, visitor))
}

/** The form that somebody had before them when they sent it in: of a version that was published, or of the present one. */
export function formSeen(live: LiveForm, version: number): LiveForm {
  if (version === live.version || !Number.isSafeInteger(version)) return live
  const form = formOfVersion(satchel().db, live.signUp.id, version)
  return form ? { ...live, form, version } : live
}

/** The language of a form for somebody: by hand, their browser's, or the form's first. */
export function formLanguage(event: H3Event, form: SignUpForm, chosen: unknown): ReaderLanguage {
  const speaks = (code: string) => form.languages.find((one) => one === code)
  if (typeof chosen === 'string' && isReaderLanguage(chosen) && speaks(chosen)) return chosen
  const wanted = (getHeader(event, 'accept-language') ?? '').slice(0, 200).toLowerCase().split(',')
  for (const one of wanted) {
    const found = speaks(one.trim().slice(0, 2))
    if (found) return found
  }
  return firstLanguage(form)
}

/** A token that says for which form and when something was drawn. */
export const drawnToken = (signUpId: number) =>
  makeToken(publicKey(), 'form', signUpId, satchel().hostClock())

/** For how long a form had been drawn when it was sent in, ms; null where the token is not of this form. */
export function drawnFor(signUpId: number, token: string): number | null {
  const of = readToken(publicTokens(), 'form', token)
  return of?.mailingId === signUpId ? satchel().hostClock() - of.personId : null
}

/** Everything that a form's HTML is drawn by. */
export function drawingOf(
  { signUp, version, form }: LiveForm,
  language: ReaderLanguage,
  stands: Stands,
  again: Partial<
    Pick<Drawing, 'typed' | 'faults' | 'meant' | 'again' | 'fromElsewhere' | 'page'>
  > = {},
): Drawing {
  const { db } = satchel()
  const { name, postal_address, letterhead, zone } = account()
  const look = drawnLook(form, letterhead)
  const pictured = [...partsOf(form, 'picture').map(({ src }) => src), look.logo ?? ''].filter(
    Boolean,
  )
  return {
    ...{ form, language, version },
    told: toldIn(readerWords(db, language), language, zone),
    look,
    fields: new Map(readFields(db).map((field) => [field.key, field])),
    shapes: pictureShapes(db, pictured),
    sender: { name, postalAddress: postal_address },
    action: `/s/${signUp.key}${stands === 'framed' ? '?in=page' : ''}`,
    token: drawnToken(signUp.id),
    ...again,
  }
}

/** The form as it can be pasted into a page: what is published, or else the draft. */
export function plainFormOf({ id, key, name, state, form }: SignUp): string {
  const live = liveSignUp(satchel().db, key)
  const drawn = live ?? { signUp: { id, key, name, state }, version: 1, form }
  const drawing = drawingOf(drawn, firstLanguage(drawn.form), 'alone')
  return plainFormHtml({ ...drawing, action: `${satchel().url}/s/${key}` })
}
