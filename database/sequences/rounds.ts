import { nameOrAddress } from '../../core/people'
import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { ROUNDS_SHOWN, type Round, type RoundsAsked } from '../../core/sequences'
import { all, raw, type Database } from '../query'
import { HELD_OUT } from './entering'

/**
 * The rounds behind a figure of a sequence's results one by one, the latest first, and whether there are more behind them. Who
 * was held out is in none but those that left by it.
 * @param those Which rounds are looked at at all: see `isOneOf`.
 */
export function roundsBehind(
  db: Database,
  sequenceId: number,
  asked: RoundsAsked,
  those: RawBuilder<SqlBool>,
): { rounds: Round[]; more: boolean } {
  const { stand, step, way, why, offset } = asked
  const isIt: RawBuilder<SqlBool>[] = [those]
  if (stand !== 'came') isIt.push(sql`n.state = ${stand}`)
  if (why !== null) isIt.push(sql`n.why = ${why}`)
  // Those held out stand apart from those who came in, also on the map.
  if (why !== HELD_OUT) isIt.push(sql`n.why is not ${HELD_OUT}`)
  if (step !== null && stand === 'inside') isIt.push(sql`n.step = ${step}`)
  if (step !== null && stand === 'came')
    isIt.push(sql`exists (select 1 from sequence_trail as t where t.sequence_id = n.sequence_id
      and t.person_id = n.person_id and t.round = n.round and t.step = ${step}
      and ${way === null ? sql`true` : sql`t.way = ${way}`})`)
  const found = all(
    db,
    raw(sql<
      Omit<Round, 'name'> & {
        first_name: string | null
        last_name: string | null
        address: string | null
      }
    >`
      select n.person_id, n.round, n.entered_at, n.state, n.step, n.due, n.why, n.ended_at,
        p.first_name, p.last_name, p.address
      from enrolments as n left join people as p on p.id = n.person_id
      where n.sequence_id = ${sequenceId} and ${sql.join(isIt, sql` and `)}
      order by n.entered_at desc, n.person_id, n.round limit ${ROUNDS_SHOWN + 1} offset ${offset}`),
  )
  const rounds = found
    .slice(0, ROUNDS_SHOWN)
    .map(({ first_name, last_name, address, ...round }) => ({
      ...round,
      name: nameOrAddress({ first_name, last_name, address }),
    }))
  return { rounds, more: found.length > ROUNDS_SHOWN }
}
