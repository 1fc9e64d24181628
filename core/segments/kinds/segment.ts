import { sql, type SqlBool } from 'kysely'
import { isWhole } from '../values/comparison'
import { named } from '../values/write'
import type { ConditionKind } from './kind'

/**
 * Who is in a saved segment. One that is a rule is asked by its rule, which `readyRule` puts in its place; what is asked
 * here is who was put into a frozen one.
 */
export interface InSegment {
  kind: 'segment'
  segmentId: number
}

export const segment: ConditionKind<InSegment> = {
  read: ({ segmentId }) => (isWhole(segmentId, 1) ? { kind: 'segment', segmentId } : null),
  ready: (of, { segments }) =>
    segments.has(of.segmentId) ? of : 'The segment asked for here is gone.',
  sql: ({ segmentId }) =>
    sql<SqlBool>`exists (select 1 from frozen_people z where z.segment_id = ${segmentId} and z.person_id = facts.person_id)`,
  predicate:
    ({ segmentId }) =>
    (person) =>
      person.frozen.has(segmentId),
  fact: ({ segmentId }, person) =>
    person.frozen.has(segmentId) ? 'put in when it was frozen' : 'not in it then',
  phrases: [
    {
      begins: 'in segment',
      read: (r, { segments }) => ({
        kind: 'segment',
        segmentId: r.named(namesOf(segments), 'segment'),
      }),
    },
  ],
  write: ({ segmentId }, { segments }) => `in segment ${named(segmentId, namesOf(segments))}`,
  offers: ({ segments }) =>
    segments.flatMap(({ id, name }) => [
      { words: `In segment ${name}`, also: '', of: { kind: 'segment' as const, segmentId: id } },
      {
        words: `Not in segment ${name}`,
        also: 'without',
        of: { kind: 'segment' as const, segmentId: id },
        not: true as const,
      },
    ]),
}

function namesOf(segments: ReadonlyMap<number, { name: string }>): Map<number, string> {
  return new Map([...segments].map(([id, { name }]) => [id, name]))
}
