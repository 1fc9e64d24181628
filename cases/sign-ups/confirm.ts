import { consentsOf, joinedBy, promises, type Consent, type SignUpForm } from '../../core/sign-ups'
import { checkAddress, readFieldValue } from '../../core/people'
import { transact, type Database } from '../../database'
import {
  addPerson,
  changePerson,
  changeSubscription,
  isSuppressed,
  listById,
  personByAddress,
  readFields,
  subscriptionOf,
  tagNamed,
  tagPeople,
} from '../../database/people'
import {
  formOfVersion,
  moveSending,
  sendingById,
  signUpName,
  type Sending,
} from '../../database/sign-ups'
import { enrolPerson } from '../../database/sequences'
import { tellDue, tellProgram } from './telling'

/**
 * What came of a press behind the mailed link. `again`: it was confirmed before, and holds. `left`: they unsubscribed since
 * they asked. `over`: it lapsed, or was never to be confirmed.
 */
export type Confirmed = 'confirmed' | 'again' | 'left' | 'suppressed' | 'over'

/**
 * Carries out what somebody agreed to, as they saw it: their lists with the wording of each, their values, tags, and what
 * was promised. Once alone, and never against what they did since.
 */
export function confirmSending(
  db: Database,
  { id }: Pick<Sending, 'id'>,
  { ip, agent }: { ip: string | null; agent: string | null },
  now: number,
): Confirmed {
  return transact(db, () => {
    const sending = sendingById(db, id)
    const form = sending && formOfVersion(db, sending.sign_up_id, sending.version)
    if (!sending || !form) return 'over'
    const consents = consentsOf(form, sending.ticked, sending.language)
    const lists = joinedBy(consents).filter(({ listId }) => listById(db, listId))
    const onFile = personByAddress(db, sending.normal)
    const leftSince = (listId: number) =>
      onFile !== undefined && leftAfter(db, onFile, listId, sending.at)
    if (sending.state === 'confirmed')
      return lists.length > 0 && lists.every(({ listId }) => leftSince(listId)) ? 'left' : 'again'
    if (sending.state !== 'pending') return 'over'
    if (onFile !== undefined && isSuppressed(db, onFile)) return 'suppressed'
    const joins = lists.filter(({ listId }) => !leftSince(listId))
    if (joins.length === 0 && !consents.some(({ oneMail }) => oneMail))
      return lists.length > 0 ? 'left' : 'over'
    const name = signUpName(db, sending.sign_up_id)
    const person = onFile ?? newPerson(db, sending, form, name, now)
    if (onFile !== undefined)
      changePerson(db, person, { values: valuesNow(db, sending, form) }, now)
    for (const { listId, wording } of joins)
      changeSubscription(
        db,
        person,
        listId,
        'subscribed',
        {
          ...{ act: 'person', way: 'form', ref: `${name}, version ${sending.version}` },
          ...{ wording, ip, agent, sendingId: id },
        },
        now,
      )
    for (const tag of form.tags) tagPeople(db, [person], tagNamed(db, tag), true)
    if (form.sequenceId !== null) enrolPerson(db, form.sequenceId, person, now)
    const mail = isPromised(form, consents) ? ('promised' as const) : null
    const told = { person_id: person, mail, tell_due: tellDue(db, form, now) }
    moveSending(db, sending, 'confirm', now, told)
    if (form.webhook) tellProgram(db, { sending, form, person, joins, name }, now)
    return 'confirmed'
  })
}

/** Whether what the form promises goes to somebody with these consents: to all, where no box of it asks for it apart. */
export function isPromised(form: SignUpForm, consents: readonly Consent[]): boolean {
  if (!promises(form)) return false
  const apart = form.parts.some((part) => 'oneMail' in part && part.oneMail)
  return !apart || consents.some(({ oneMail }) => oneMail)
}

function newPerson(
  db: Database,
  sending: Sending,
  form: SignUpForm,
  name: string,
  now: number,
): number {
  const address = checkAddress(sending.address)
  if (!address.ok) throw new Error('A sending is kept with an address that was checked.')
  const values = valuesNow(db, sending, form)
  return addPerson(db, { ...address, values, source: `form: ${name}` }, now)!
}

/** What the form sets, and what they entered, which goes before it; of the fields that are still there. */
function valuesNow(db: Database, { given }: Sending, form: SignUpForm): Sending['given'] {
  const fields = new Map(readFields(db).map((field) => [field.key, field]))
  const set = form.values.flatMap(({ field: key, value }) => {
    const field = fields.get(key)
    const read = field && readFieldValue(value, field.kind)
    return read == null ? [] : [[key, read] as const]
  })
  const entered = Object.entries(given).filter(([key]) => fields.has(key))
  return Object.fromEntries([...set, ...entered])
}

function leftAfter(db: Database, person: number, listId: number, at: number): boolean {
  const now = subscriptionOf(db, person, listId)
  return now?.state === 'unsubscribed' && now.since > at
}
