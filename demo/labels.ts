import type { Labelled } from '../core/labels'
import type { Database } from '../database'
import { putLabel } from '../database/labels'
import { all, q } from '../database/query'

/** Which labels stand on what, by how it is called. */
const labels: [label: string, kind: Labelled, named: RegExp][] = [
  ['Workshop', 'mailing', /^(Workshop|Winter workshop|Repair day)/],
  ['Sale', 'mailing', /^(Offer:|Gale season sale)/],
  ['Gale season', 'mailing', /^(Gale season|Wind notes 4\d|Winter workshop|Offer: Force 5)/],
  ['Gale season', 'sequence', /^Quiet since summer/],
  ['Newcomers', 'sequence', /^(First breeze|First course)/],
  ['Newcomers', 'sign-up', /guide|own page/],
  ['Shop', 'sequence', /^Basket/],
  ['Festival', 'sign-up', /^Festival/],
]

/** Labels as a small team puts them on. */
export function makeLabels(db: Database) {
  const things: Record<Labelled, { id: number; name: string }[]> = {
    mailing: all(
      db,
      q.selectFrom('mailings').select(['id', 'name']).where('sequence_id', 'is', null),
    ),
    sequence: all(db, q.selectFrom('sequences').select(['id', 'name'])),
    'sign-up': all(db, q.selectFrom('sign_ups').select(['id', 'name'])),
  }
  for (const [label, kind, named] of labels)
    for (const { id, name } of things[kind]) if (named.test(name)) putLabel(db, label, kind, id)
}
