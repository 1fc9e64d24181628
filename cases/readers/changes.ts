import { valueAsTyped, type Told } from '../../core/readers'
import type { Field, FieldValue } from '../../core/people'
import { transact, type Database } from '../../database'
import { changePerson, changeSubscription, listById, personDetails } from '../../database/people'
import { mailingById } from '../../database/mailings'
import { recordOwnChange } from '../../database/readers'
import { recordLeaving } from '../../database/sending'

/** Who changes something on their own page, how they are spoken to, and by which mailing's link they came. */
export interface ReaderAct {
  personId: number
  told: Told
  mailingId: number | null
  /** Of which of their rounds in the mailing's sequence the link was. */
  round: number
  ip: string | null
  agent: string | null
}

const WAY = 'their own page'

/** Puts somebody on lists and off others, as they ticked; what they read beside the box is the wording. */
export function changeLists(
  db: Database,
  act: ReaderAct,
  { join, leave }: { join: readonly number[]; leave: readonly number[] },
  now: number,
) {
  transact(db, () => {
    for (const id of join) changeList(db, act, id, 'subscribed', 'saveLists', now)
    for (const id of leave) changeList(db, act, id, 'unsubscribed', 'saveLists', now)
  })
}

/** Takes somebody off every list. */
export function leaveEverything(db: Database, act: ReaderAct, now: number) {
  transact(db, () => {
    for (const { list_id, state } of personDetails(db, act.personId)!.subscriptions)
      if (state !== 'unsubscribed')
        changeList(db, act, list_id, 'unsubscribed', 'unsubscribeAll', now)
  })
}

function changeList(
  db: Database,
  { personId, told, mailingId, round, ip, agent }: ReaderAct,
  listId: number,
  wanted: 'subscribed' | 'unsubscribed',
  button: 'saveLists' | 'unsubscribeAll',
  now: number,
) {
  const list = listById(db, listId)
  const on = personDetails(db, personId)!.subscriptions.some(({ list_id }) => list_id === listId)
  // Nobody gets onto a list that they were not offered.
  if (!list || (wanted === 'subscribed' && !list.offered && !on)) return
  const shown = [list.public_name, list.public_about, list.public_often].filter(Boolean).join(' · ')
  const wording = `${wanted === 'subscribed' ? '☑' : '☐'} ${shown} · ${told.plain(button)}`
  const ref = mailingId === null ? null : String(mailingId)
  const by = { act: 'person' as const, way: WAY, ref, wording, ip, agent }
  const state = changeSubscription(db, personId, listId, wanted, by, now)
  // They left by the mailing whose link they came by, where that was one to this list.
  if (
    state === 'unsubscribed' &&
    mailingId !== null &&
    mailingById(db, mailingId)?.list_id === listId
  )
    recordLeaving(db, { mailingId, personId, round }, now)
}

/** Changes somebody's values as they wrote them; each that differs is kept as their own change. */
export function changeValues(
  db: Database,
  act: ReaderAct,
  changes: readonly { field: Field; before: FieldValue | null; value: FieldValue | null }[],
  now: number,
) {
  const { personId, told, ...from } = act
  const changed = changes.filter(
    ({ before, value }) => valueAsTyped(before) !== valueAsTyped(value),
  )
  if (!changed.length) return
  transact(db, () => {
    const values = Object.fromEntries(changed.map(({ field, value }) => [field.key, value]))
    changePerson(db, personId, { values }, now)
    for (const { field, value } of changed)
      recordOwnChange(
        db,
        personId,
        {
          ...from,
          what: 'value',
          detail: `${field.name}: ${valueAsTyped(value) || '(nothing)'}`,
          wording: told.plain('saveDetails'),
        },
        now,
      )
  })
}
