import { kindsAddedTo, readFieldValue, type Field } from '../../core/people'
import { blockersOf } from '../../core/proof'
import { readyRule, type Rule } from '../../core/segments'
import {
  asksOf,
  JOINED,
  mailingsOfStep,
  mapCautions,
  mapProblems,
  stepsInOrder,
  type Act,
  type MapMark,
  type SequenceMap,
} from '../../core/sequences'
import { dayOf } from '../../core/time'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { mailingById } from '../../database/mailings'
import { readFields, readTags } from '../../database/people'
import { readCatalog, segmentById } from '../../database/segments'
import { signUpById } from '../../database/sign-ups'
import type { Sequence } from '../../database/sequences'
import { proofMailing } from '../mailings'

/** What keeps a sequence from running: of its map, of who may come in, and of its letters. */
export function sequenceProblems(db: Database, sequence: Sequence, now: number): MapMark[] {
  const { map, list_id } = sequence
  const letters = stepsInOrder(map).flatMap(({ id, step }) =>
    mailingsOfStep(step)
      .flatMap((mailing) => letterLacks(db, sequence, mailing, now) ?? [])
      .map((title) => ({ title, step: id })),
  )
  return [
    ...mapProblems(map, list_id),
    ...goneStarts(db, map).map((title) => ({ title, step: null })),
    ...unfitFields(db, map),
    ...unreadyRules(db, map),
    ...letters,
  ]
}

/** What keeps a mail of it from going out, in a sentence; null where nothing does. */
function letterLacks(db: Database, sequence: Sequence, id: number, now: number): string | null {
  const mailing = mailingById(db, id)
  if (mailing?.sequence_id !== sequence.id) return 'A mail is gone. Remove its step.'
  if (mailing.started_at !== null) return null
  // A list that is still empty keeps no sequence from waiting for people.
  const [first] = blockersOf(proofMailing(db, mailing, now)).filter(
    ({ check }) => check !== 'audience',
  )
  return first ? `${mailing.name}: ${first.title}.` : null
}

/** Rules that name what is not on file, by the step that asks them. */
function unreadyRules(db: Database, map: SequenceMap): MapMark[] {
  const catalog = readCatalog(db)
  const marks = (rules: readonly Rule[], step: string | null) =>
    rules.flatMap((rule) =>
      readyRule(rule, catalog).problems.map(({ message }) => ({ title: message, step })),
    )
  const { rule, out } = map.start
  return [
    ...marks(
      [rule, out].filter((one) => one != null),
      null,
    ),
    ...stepsInOrder(map).flatMap(({ id, step }) =>
      marks(
        asksOf(step).flatMap((one) => (one.is === 'fits' ? [one.rule] : [])),
        id,
      ),
    ),
  ]
}

/** Starts that name what is not on file any more. */
const goneStarts = (db: Database, { start }: SequenceMap) =>
  start.by.flatMap((one) => {
    if (one.is === 'segment' && one.segmentId > 0 && !segmentById(db, one.segmentId))
      return ['The segment by which people come in is gone.']
    if (one.is === 'joined' && one.signUpId !== null && !signUpById(db, one.signUpId))
      return ['The sign-up by which people come in is gone.']
    if (one.is === 'moment' && one.segmentId > 0 && !segmentById(db, one.segmentId))
      return ['The segment that comes in at a moment is gone.']
    if (one.is === 'tag' && one.tagId > 0 && !readTags(db).some(({ id }) => id === one.tagId))
      return ['The tag by which people come in is gone.']
    if (one.is === 'mailed' && one.mailingId > 0 && !mailingById(db, one.mailingId))
      return ['The mailing by which people come in is gone.']
    const isGone = (of: string) => of !== JOINED && !readFields(db).some(({ key }) => key === of)
    if (one.is === 'field' && one.field !== '' && isGone(one.field))
      return ['The field by which people come in is gone.']
    return one.is === 'date' && one.of !== '' && isGone(one.of)
      ? ['The field whose date lets people in is gone.']
      : []
  })

/** Steps that set a field which is gone, or to what it can't hold. */
function unfitFields(db: Database, map: SequenceMap): MapMark[] {
  const fields = new Map(readFields(db).map((field) => [field.key, field]))
  return stepsInOrder(map).flatMap(({ id, step }) =>
    (step.kind === 'do' ? step.acts : []).flatMap((act) => {
      const title = lacksField(act, fields)
      return title === null ? [] : [{ title, step: id }]
    }),
  )
}

function lacksField(act: Act, fields: ReadonlyMap<string, Field>): string | null {
  if ((act.is !== 'set' && act.is !== 'add') || act.field === '') return null
  const field = fields.get(act.field)
  if (!field) return 'A field that is to be set, or added to, is gone.'
  const { name, kind } = field
  if (act.is === 'add' && !kindsAddedTo.includes(kind))
    return `Nothing can be added to the field ${name}: only to numbers and to choices.`
  const isCleared = act.value.trim() === ''
  return isCleared || readFieldValue(act.value, kind, { separator: ',' }) != null
    ? null
    : `“${act.value}” is no value of the field ${name}.`
}

/** What may well be meant in a sequence, and often is not. */
export function sequenceCautions(db: Database, { map }: Sequence, now: number): MapMark[] {
  return mapCautions(map, dayOf(now, readAccount(db)?.zone ?? 'UTC'))
}
