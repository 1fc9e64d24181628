import { q, soonest, type Database } from '../query'

/** When a program or one of the team is told next of who came by a step; null where nobody is to be. */
export const nextToldDue = (db: Database): number | null =>
  soonest(db, [
    q.selectFrom('hand_overs').select((eb) => eb.fn.min('due').as('due')),
    q.selectFrom('team_tellings').select((eb) => eb.fn.min('due').as('due')),
  ])
