import { blockersOf } from '../../core/proof'
import { readyRule } from '../../core/segments'
import { mapCautions, mapProblems, stepsInOrder, type SequenceMap } from '../../core/sequences'
import type { Database } from '../../database'
import { mailingById } from '../../database/mailings'
import { readCatalog } from '../../database/segments'
import type { Sequence } from '../../database/sequences'
import { proofMailing } from '../mailings'

/** What keeps a sequence from running, in sentences: of its map, of who may come in, and of its letters. */
export function sequenceProblems(db: Database, sequence: Sequence, now: number): string[] {
  const { rule } = sequence.map.start
  const letters = stepsInOrder(sequence.map).flatMap(({ step }) => {
    const mailing = step.kind === 'mail' ? mailingById(db, step.mailingId) : null
    if (step.kind === 'mail' && mailing?.sequence_id !== sequence.id)
      return ['A mail is gone. Remove its step.']
    if (!mailing || mailing.started_at !== null) return []
    // A list that is still empty keeps no sequence from waiting for people.
    const [first] = blockersOf(proofMailing(db, mailing, now)).filter(
      ({ check }) => check !== 'audience',
    )
    return first ? [`${mailing.name}: ${first.title}.`] : []
  })
  return [
    ...mapProblems(sequence.map, sequence.list_id),
    ...[...(rule ? [rule] : []), ...rulesOf(sequence.map)].flatMap((one) =>
      readyRule(one, readCatalog(db)).problems.map(({ message }) => message),
    ),
    ...letters,
  ]
}

/** The rules that forks and goals of a map ask. */
const rulesOf = (map: SequenceMap) =>
  stepsInOrder(map).flatMap(({ step }) => {
    const asked =
      step.kind === 'fork'
        ? step.ways.map(({ when }) => when)
        : step.kind === 'goal'
          ? [step.when]
          : []
    return asked.flatMap((when) => (when.is === 'fits' ? [when.rule] : []))
  })

/** What may well be meant in a sequence, and often is not, in sentences. */
export const sequenceCautions = ({ map }: Sequence): string[] => mapCautions(map)
