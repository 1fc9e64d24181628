import { kindsAddedTo, readFieldValue } from '../../core/people'
import { blockersOf } from '../../core/proof'
import { readyRule } from '../../core/segments'
import {
  JOINED,
  mapCautions,
  mailingsOfMap,
  mapProblems,
  rulesOf,
  stepsInOrder,
  type SequenceMap,
} from '../../core/sequences'
import type { Database } from '../../database'
import { mailingById } from '../../database/mailings'
import { readFields, readTags } from '../../database/people'
import { readCatalog, segmentById } from '../../database/segments'
import { signUpById } from '../../database/sign-ups'
import type { Sequence } from '../../database/sequences'
import { proofMailing } from '../mailings'

/** What keeps a sequence from running, in sentences: of its map, of who may come in, and of its letters. */
export function sequenceProblems(db: Database, sequence: Sequence, now: number): string[] {
  const letters = mailingsOfMap(sequence.map).flatMap((id) => {
    const mailing = mailingById(db, id)
    if (mailing?.sequence_id !== sequence.id) return ['A mail is gone. Remove its step.']
    if (mailing.started_at !== null) return []
    // A list that is still empty keeps no sequence from waiting for people.
    const [first] = blockersOf(proofMailing(db, mailing, now)).filter(
      ({ check }) => check !== 'audience',
    )
    return first ? [`${mailing.name}: ${first.title}.`] : []
  })
  return [
    ...mapProblems(sequence.map, sequence.list_id),
    ...goneStarts(db, sequence.map),
    ...unfitFields(db, sequence.map),
    ...rulesOf(sequence.map).flatMap((one) =>
      readyRule(one, readCatalog(db)).problems.map(({ message }) => message),
    ),
    ...letters,
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
function unfitFields(db: Database, map: SequenceMap): string[] {
  const fields = new Map(readFields(db).map((field) => [field.key, field]))
  const acts = stepsInOrder(map).flatMap(({ step }) => (step.kind === 'do' ? step.acts : []))
  const problems = acts.flatMap((act) => {
    if ((act.is !== 'set' && act.is !== 'add') || act.field === '') return []
    const field = fields.get(act.field)
    if (!field) return ['A field that is to be set, or added to, is gone.']
    const { name, kind } = field
    if (act.is === 'add' && !kindsAddedTo.includes(kind))
      return [`Nothing can be added to the field ${name}: only to numbers and to choices.`]
    const isCleared = act.value.trim() === ''
    return isCleared || readFieldValue(act.value, kind, { separator: ',' }) != null
      ? []
      : [`“${act.value}” is no value of the field ${name}.`]
  })
  return [...new Set(problems)]
}

/** What may well be meant in a sequence, and often is not, in sentences. */
export const sequenceCautions = ({ map }: Sequence): string[] => mapCautions(map)
