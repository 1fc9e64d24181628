import { sql, type SqlBool } from 'kysely'
import { isWhole } from '../values/comparison'
import { named } from '../values/write'
import type { SequenceFact } from '../person-facts'
import type { ConditionKind } from './kind'

/** How somebody stands with a sequence. */
export interface InSequence {
  kind: 'sequence'
  sequenceId: number
  is: SequenceStanding
}

/** Inside now; came to its end at least once; or never came in. Who left on the way is none of them. */
export type SequenceStanding = (typeof sequenceStandings)[number]
export const sequenceStandings = ['inside', 'finished', 'never'] as const

const verbs = { inside: 'inside', finished: 'finished', never: 'never in' }

const latest = (rounds: readonly SequenceFact[]) =>
  rounds.toSorted((a, b) => b.enteredAt - a.enteredAt)[0]

export const sequence: ConditionKind<InSequence> = {
  read: ({ sequenceId, is }) =>
    isWhole(sequenceId, 1) && sequenceStandings.includes(is as SequenceStanding)
      ? { kind: 'sequence', sequenceId, is: is as SequenceStanding }
      : null,
  ready: (of, { sequences }) =>
    sequences.has(of.sequenceId) ? of : 'The sequence asked for here is gone.',
  sql({ sequenceId, is }) {
    const state = is === 'never' ? sql`` : sql` and n.state = ${is}`
    const entered = sql<SqlBool>`exists (select 1 from enrolments n where n.person_id = facts.person_id and n.sequence_id = ${sequenceId}${state})`
    return is === 'never' ? sql<SqlBool>`not ${entered}` : entered
  },
  predicate: ({ sequenceId, is }) =>
    is === 'never'
      ? (person) => !person.sequences.has(sequenceId)
      : (person) => !!person.sequences.get(sequenceId)?.some(({ state }) => state === is),
  fact({ sequenceId }, person, { day }) {
    const rounds = person.sequences.get(sequenceId) ?? []
    const been = rounds.find(({ state }) => state === 'inside') ?? latest(rounds)
    if (!been) return 'never in it'
    return been.state === 'inside'
      ? `inside since ${day(been.enteredAt)}`
      : `${been.state} ${day(been.endedAt ?? been.enteredAt)}`
  },
  phrases: sequenceStandings.map((is) => ({
    begins: `${verbs[is]} sequence`,
    read: (r, { sequences }) => ({
      kind: 'sequence',
      sequenceId: r.named(sequences, 'sequence'),
      is,
    }),
  })),
  write: ({ sequenceId, is }, { sequences }) =>
    `${verbs[is]} sequence ${named(sequenceId, sequences)}`,
  offers: ({ sequences }) =>
    sequences.flatMap(({ id, name }) => {
      const of = (is: SequenceStanding): InSequence => ({ kind: 'sequence', sequenceId: id, is })
      return [
        {
          words: `Inside sequence ${name}`,
          also: 'enrolled now automated',
          of: of('inside'),
        },
        {
          words: `Finished sequence ${name}`,
          also: 'done through ended automated',
          of: of('finished'),
        },
        { words: `Never in sequence ${name}`, also: 'not entered automated', of: of('never') },
      ]
    }),
}
