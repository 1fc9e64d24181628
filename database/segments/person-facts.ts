import type { PersonFacts, SequenceFact } from '../../core/segments'
import { enrolmentsOf, valuesOf } from '../people'
import { all, one, q, type Database } from '../query'
import { pauseOf } from '../readers'

/** Everything known of one person that a rule may ask; null where there is no such person. */
export function factsOf(db: Database, id: number): PersonFacts | null {
  const person = one(
    db,
    q
      .selectFrom('people')
      .innerJoin('facts', 'facts.person_id', 'people.id')
      .select([
        'normal',
        'domain',
        'first_name',
        'last_name',
        'fields',
        'people.joined_at',
        'people.source',
        'keenness',
      ])
      .where('people.id', '=', id),
  )
  if (!person) return null
  const subscriptions = all(
    db,
    q.selectFrom('subscriptions').select(['list_id', 'state', 'since']).where('person_id', '=', id),
  )
  const evidence = all(
    db,
    q
      .selectFrom('evidence')
      .select(['list_id', 'at', 'state', 'way'])
      .where('person_id', '=', id)
      .orderBy('id'),
  )
  const items = all(
    db,
    q
      .selectFrom('orders')
      .leftJoin('order_items as i', 'i.order_id', 'orders.id')
      .leftJoin('products', 'products.id', 'i.product_id')
      .select([
        'orders.id',
        'orders.at',
        'orders.money',
        'products.name as product',
        'products.category',
        'i.money as item_money',
      ])
      .where('orders.person_id', '=', id),
  )
  const orders = new Map<
    number,
    { at: number; money: number; items: PersonFacts['orders'][number]['items'][number][] }
  >()
  for (const { id: order, at, money, product, category, item_money } of items) {
    if (!orders.has(order)) orders.set(order, { at, money, items: [] })
    if (product !== null)
      orders.get(order)!.items.push({ product, category: category!, money: item_money! })
  }
  return {
    normal: person.normal,
    domain: person.domain,
    joinedAt: person.joined_at,
    values: valuesOf(person),
    subscriptions: new Map(
      subscriptions.map(({ list_id, state, since }) => {
        const changes = evidence.filter((change) => change.list_id === list_id)
        const earlier = changes
          .filter(({ at }) => at < since)
          .map(({ state, at, way }) => ({ state, since: at, way }))
        return [list_id, { state, since, way: changes.at(-1)?.way ?? null, earlier }]
      }),
    ),
    tags: new Set(
      all(db, q.selectFrom('person_tags').select('tag_id').where('person_id', '=', id)).map(
        ({ tag_id }) => tag_id,
      ),
    ),
    mail: all(
      db,
      q
        .selectFrom('recipients')
        .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
        .leftJoin('agents', 'agents.id', 'recipients.opened_on')
        .select([
          'mailing_id as mailingId',
          'sequence_id as sequenceId',
          'recipients.state',
          'at',
          'accepted_at as acceptedAt',
          'opened_at as openedAt',
          'agents.text as openedOn',
          'clicked_at as clickedAt',
          'left_at as leftAt',
          'replied_at as repliedAt',
        ])
        .where('person_id', '=', id),
    ),
    clicks: all(
      db,
      q
        .selectFrom('recipients as r')
        .innerJoin('acts as a', (join) =>
          join
            .onRef('a.mailing_id', '=', 'r.mailing_id')
            .onRef('a.person_id', '=', 'r.person_id')
            .onRef('a.round', '=', 'r.round'),
        )
        .select(['a.mailing_id as mailingId', 'a.link', 'a.at'])
        .$narrowType<{ link: number }>()
        .where('r.person_id', '=', id)
        .where('a.kind', '=', 'click')
        .where('a.link', 'is not', null)
        .where('a.verdict', '=', 'human'),
    ),
    orders: [...orders.values()],
    events: all(
      db,
      q.selectFrom('events').select(['name', 'at', 'props']).where('person_id', '=', id),
    ).map(({ name, at, props }) => ({
      name,
      at,
      props: JSON.parse(props) as Record<string, unknown>,
    })),
    frozen: new Set(
      all(db, q.selectFrom('frozen_people').select('segment_id').where('person_id', '=', id)).map(
        ({ segment_id }) => segment_id,
      ),
    ),
    sequences: roundsBySequence(db, id),
    signUps: all(
      db,
      q
        .selectFrom('sign_up_sendings')
        .select(['sign_up_id as signUpId', 'ended_at as at'])
        .$narrowType<{ at: number }>()
        .where('person_id', '=', id)
        .where('state', '=', 'confirmed')
        .orderBy('ended_at'),
    ),
    keenness: person.keenness,
    suppressed:
      one(db, q.selectFrom('set_aside').select(['at', 'reason']).where('person_id', '=', id)) ??
      null,
    pause: pauseOf(db, id),
    source: person.source,
  }
}

function roundsBySequence(db: Database, personId: number): Map<number, SequenceFact[]> {
  const rounds = new Map<number, SequenceFact[]>()
  for (const { id, state, entered_at, ended_at } of enrolmentsOf(db, personId)) {
    const of = rounds.get(id) ?? []
    of.push({ state, enteredAt: entered_at, endedAt: ended_at })
    rounds.set(id, of)
  }
  return rounds
}
