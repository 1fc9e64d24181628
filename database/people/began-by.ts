import { sql } from 'kysely'
import { all, raw, type Database } from '../query'

/** Somebody, and which time they are inside; 0 outside of sequences. */
export interface Round {
  person_id: number
  round: number
}

/** An event that let somebody into a sequence. */
export interface BeganBy {
  name: string
  props: Record<string, unknown>
}

export const roundKey = ({ person_id, round }: Round) => `${person_id} ${round}`

/** By which event each of these rounds of a sequence began, under its {@link roundKey}; those that began by none are absent. */
export function beganBy(
  db: Database,
  sequenceId: number | null,
  rounds: readonly Round[],
): Map<string, BeganBy> {
  if (sequenceId === null || rounds.length === 0) return new Map()
  const asked = JSON.stringify(rounds.map(({ person_id, round }) => [person_id, round]))
  // What it began by is a number of an event or of an order: which of them, the start says.
  const rows = all(
    db,
    raw(sql<Round & { name: string; props: string }>`
      select n.person_id, n.round, e.name, e.props
      from json_each(${asked}) as asked
      join enrolments as n on n.sequence_id = ${sequenceId}
        and n.person_id = json_extract(asked.value, '$[0]') and n.round = json_extract(asked.value, '$[1]')
      join sequence_versions as v on v.sequence_id = n.sequence_id and v.version = n.version
      join events as e on e.id = n.started_by and e.person_id = n.person_id
      where json_extract(v.map, '$.start.by[' || n.start || '].is') in ('event', 'left behind')
        and json_extract(v.map, '$.start.by[' || n.start || '].name') = e.name`),
  )
  return new Map(
    rows.map(({ name, props, ...round }) => [
      roundKey(round),
      { name, props: JSON.parse(props) as Record<string, unknown> },
    ]),
  )
}

/** Which time somebody is inside a sequence, or was last; 0 where they never were. */
export function latestRound(db: Database, sequenceId: number | null, person: number): Round {
  const [row] =
    sequenceId === null
      ? []
      : all(
          db,
          raw(sql<{ round: number | null }>`
            select max(round) as round from enrolments where sequence_id = ${sequenceId} and person_id = ${person}`),
        )
  return { person_id: person, round: row?.round ?? 0 }
}
