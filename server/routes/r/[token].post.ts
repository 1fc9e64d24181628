import { checkAddress } from '~~/core/people'
import {
  changedLists,
  pauseUntil,
  pauseWeeks,
  readerFieldName,
  typedValue,
  WEEKLY,
} from '~~/core/readers'
import { openFields, personDetails, valuesOf } from '~~/database/people'
import { askOwn, endPause, limitMail, pauseMail } from '~~/database/readers'
import { changeLists, changeValues, leaveEverything, type ReaderAct } from '~~/cases/readers'

/** What a reader changes on their own page: one thing at a time, each with a button of its own. */
export default defineEventHandler(async (event) => {
  const reader = readerOf(event)
  if (!reader) return noSuchLink(event)
  const form = new URLSearchParams((await readRawBody(event)) ?? '')
  const act = { ...reader, ...fromWhere(event) }
  const did = form.get('do') ?? ''
  if (did === 'known' || did === 'erase' || did === 'address') return ask(event, reader, did, form)
  const fault = did === 'fields' ? setValues(act, form) : carryOut(act, did, form)
  if (fault !== null) return answerReader(event, reader, { kind: 'fault', ...fault }, typedIn(form))
  // Seen by a request of its own, so that loading the page again does nothing again.
  return sendRedirect(event, `/r/${reader.token}?saved`, 303)
})

type Fault = { words: string } | null

/** Does what a button says; what it does not know changes nothing. */
function carryOut(act: ReaderAct, did: string, form: URLSearchParams): Fault {
  const { db, clock } = satchel()
  const { personId, told } = act
  const now = clock()
  switch (did) {
    case 'lists':
      changeLists(db, act, changedLists(form), now)
      break
    case 'leave':
      leaveEverything(db, act, now)
      break
    case 'pause': {
      const weeks = pauseWeeks.find((weeks) => String(weeks) === form.get('weeks'))
      if (!weeks) break
      const until = pauseUntil(weeks, now)
      const wording = told.plain('pauseFor', { weeks: String(weeks) })
      const detail = `Mail paused for ${weeks} weeks`
      pauseMail(db, personId, until, { ...act, wording, detail }, now)
      break
    }
    case 'unpause': {
      const wording = told.plain('endPause')
      endPause(db, personId, { ...act, wording, detail: 'Pause ended' }, now)
      break
    }
    case 'weekly': {
      const wording = told.plain('weekly')
      limitMail(db, personId, WEEKLY, { ...act, wording, detail: 'At most one a week' }, now)
      break
    }
    case 'unlimited': {
      const wording = told.plain('noLimit')
      limitMail(db, personId, null, { ...act, wording, detail: 'No limit of their own' }, now)
      break
    }
  }
  return null
}

/** Changes what is about them; nothing where one of the values can't be read. */
function setValues(act: ReaderAct, form: URLSearchParams): Fault {
  const { db, clock } = satchel()
  const { told } = act
  const before = valuesOf(personDetails(db, act.personId)!.person)
  const changes = []
  for (const field of openFields(db)) {
    const written = form.get(`value.${field.key}`)
    if (written === null) continue
    try {
      const value = valuesFrom({ [field.key]: typedValue(field, written) })[field.key] ?? null
      changes.push({ field, before: before[field.key] ?? null, value })
    } catch {
      return { words: told.plain('wrongValue', { field: readerFieldName(field, told) }) }
    }
  }
  changeValues(db, act, changes, clock())
  return null
}

/** Takes a request that only a mail to an address of theirs makes good, since letters are passed on. */
function ask(
  event: Parameters<typeof answerReader>[0],
  reader: Reader,
  kind: 'known' | 'erase' | 'address',
  form: URLSearchParams,
) {
  const { db, hostClock } = satchel()
  const { told, personId, mailingId } = reader
  const checked = kind === 'address' ? checkAddress(form.get('address') ?? '') : null
  if (checked && !checked.ok) {
    const words = told.plain('wrongAddress')
    return answerReader(event, reader, { kind: 'fault', words }, typedIn(form))
  }
  const sentTo = checked?.ok ? checked.address : personDetails(db, personId)!.person.address
  const address = checked?.ok ? { address: sentTo } : {}
  const asked = { personId, kind, sentTo, ...address, language: told.language, mailingId }
  if (!askOwn(db, asked, hostClock()))
    return answerReader(event, reader, { kind: 'fault', words: told.plain('tooOften') })
  return publicPage(event, {
    title: told.plain('sent'),
    body: `<p>${told.html('sentAbout', { address: sentTo })}</p><p><a href="/r/${reader.token}">${told.html('backToPage')}</a></p>`,
    language: told.language,
  })
}

/** What was written in the form, to be there again where it was not taken. */
const typedIn = (form: URLSearchParams) =>
  Object.fromEntries([...form].filter(([name]) => name === 'address' || name.startsWith('value.')))
