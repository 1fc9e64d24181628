import { sql, type Expression, type SqlBool } from 'kysely'
import type { RecipientState } from '../../core/delivery'
import { eligible, type Audience } from '../segments'
import { q, run, transact, type Database } from '../query'
import { beginTotals, shiftTotals } from '../sending'

/** Which of the audience are planned, and what differs between them. */
export interface Share {
  /** Condition on `people`. */
  only?: Expression<SqlBool>
  part?: number
  /** Of each person, as an expression on `people`. */
  variant?: Expression<number | null>
  due?: Expression<number>
}

/** Fixes who gets a mailing: everybody eligible now, or a share of them, queued. How many that are. */
export function planRecipients(
  db: Database,
  mailingId: number,
  audience: Audience,
  now: number,
  { only, part, variant, due }: Share = {},
): number {
  return transact(db, () => {
    beginTotals(db, mailingId)
    const { changes } = run(
      db,
      q
        .insertInto('recipients')
        .columns(['mailing_id', 'person_id', 'state', 'at', 'due', 'part', 'variant'])
        .expression((eb) =>
          eb
            .selectFrom('people')
            .select([
              eb.val(mailingId).as('mailing_id'),
              'people.id',
              eb.val<RecipientState>('queued').as('state'),
              eb.val(now).as('at'),
              sql<number>`${due ?? now}`.as('due'),
              eb.val(part ?? null).as('part'),
              sql<number | null>`${variant ?? null}`.as('variant'),
            ])
            .where(() => eligible(db, audience, now))
            .$if(only !== undefined, (query) => query.where(() => only!)),
        )
        .onConflict((c) => c.doNothing()),
    )
    shiftTotals(db, mailingId, { queued: changes })
    return changes
  })
}
