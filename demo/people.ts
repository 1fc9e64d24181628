import { DAY } from '../core/time'
import { prepared, q, run, type Database } from '../database'
import { wordingId } from '../database/wordings'
import type { Chance } from './chance'
import type { Comers } from './sign-up-history'
import { domains, firstNames, kites, lastNames, styles, towns } from './names'

/** A person as the history needs them. */
export interface DemoPerson {
  id: number
  domain: string
  joinedAt: number
  /** 0..1: how gladly they read. */
  keen: number
  /** When they went quiet, if they did. */
  quietFrom: number
  /** By list: since when, and until when (infinity while they are on it). */
  lists: Map<number, { since: number; until: number }>
  setAsideAt: number
  setAsideBy: 'bounced' | 'complained'
  /** When they followed a link of a mailing. */
  clicks: number[]
}

export interface DemoLists {
  windNotes: number
  workshop: number
  offers: number
}

/** History reaches back this far. */
export const HISTORY = 548 * DAY

/** Makes the people: most were there before the history begins, the others joined with the seasons. */
export function makePeople(
  db: Database,
  chance: Chance,
  size: number,
  lists: DemoLists,
  comers: Comers,
  now: number,
): DemoPerson[] {
  const add = personStatements(db)
  const people: DemoPerson[] = []
  const wording = wordingId(db, 'Yes, send me this. I can leave with one click at any time.')
  const tags = (
    [
      ['owner', 'brass'],
      ['volunteer', 'green'],
      ['press', 'blue'],
      ['repair day', 'plain'],
      ['festival 2025', 'plain'],
    ] as const
  ).map(([name, color]) => run(db, q.insertInto('tags').values({ name, color })).id)
  for (let i = 0; i < size; i++) {
    const joinedAt = chance.is(0.48)
      ? now - HISTORY - chance.next() * 900 * DAY
      : joinedWithinHistory(chance, now)
    const domain = chance.weighted(domains)
    const [first, firstLatin] = chance.pick(firstNames)
    const [last, lastLatin] = chance.pick(lastNames)
    const known = !chance.is(0.09)
    const normal = `${chance.is(0.5) ? `${firstLatin}.${lastLatin}` : `${firstLatin}${lastLatin.slice(0, 1)}`}${i + 1}@${domain}`
    const id = add.person.one({
      address: normal,
      normal,
      domain,
      first: known ? first : null,
      last: known && !chance.is(0.05) ? last : null,
      fields: JSON.stringify(fieldsOf(chance, joinedAt, i)),
      joined: Math.floor(joinedAt),
      changed: Math.floor(joinedAt),
    })!.id
    const keen = chance.next() ** 1.3
    const person: DemoPerson = {
      id,
      domain,
      joinedAt,
      keen,
      quietFrom: chance.is(0.12) ? joinedAt + chance.next() * (now - joinedAt) : Infinity,
      lists: new Map(),
      setAsideAt: chance.is(0.028)
        ? joinedAt + (0.2 + 0.8 * chance.next()) * (now - joinedAt)
        : Infinity,
      setAsideBy: 'bounced',
      clicks: [],
    }
    for (const [list, share] of [
      [lists.windNotes, 0.8],
      [lists.workshop, 0.3],
      [lists.offers, 0.68],
    ] as const) {
      if (!chance.is(share)) continue
      const since = Math.floor(
        joinedAt + (chance.is(0.75) ? 0 : chance.next() * (now - joinedAt) * 0.6),
      )
      const until = chance.is(0.075 - 0.05 * keen)
        ? since + (0.1 + 0.9 * chance.next()) * (now - since)
        : Infinity
      person.lists.set(list, { since, until })
      add.subscription.run({
        person: id,
        list,
        state: until < now ? 'unsubscribed' : 'subscribed',
        since: Math.floor(until < now ? until : since),
      })
      const byForm = chance.is(0.8)
      const comer = { id, normal, first: known ? first : null, n: i }
      const came = byForm ? comers.join(comer, list, since) : null
      add.evidence.run({
        person: id,
        list,
        at: since,
        state: 'subscribed',
        way: byForm ? 'form' : 'import',
        ref: came?.ref ?? null,
        sending: came?.sendingId ?? null,
        wording: came ? wordingId(db, came.wording) : wording,
      })
      if (until < now)
        add.evidence.run({
          person: id,
          list,
          at: Math.floor(until),
          state: 'unsubscribed',
          way: 'unsubscribe page',
          ...{ ref: null, sending: null, wording: null },
        })
    }
    if (person.setAsideAt < now) {
      person.setAsideBy = chance.is(0.9) ? 'bounced' : 'complained'
      run(
        db,
        q.insertInto('set_aside').values({
          person_id: id,
          at: Math.floor(person.setAsideAt),
          reason: person.setAsideBy,
          detail:
            person.setAsideBy === 'bounced'
              ? '550 5.1.1 no such mailbox'
              : 'Reported a mailing as spam.',
        }),
      )
    }
    if (chance.is(0.25)) add.tag.run({ person: id, tag: chance.pick(tags) })
    people.push(person)
  }
  return people
}

/** More join in spring and early summer. */
function joinedWithinHistory(chance: Chance, now: number): number {
  for (;;) {
    const at = now - chance.next() * HISTORY
    const season = 0.6 + 0.4 * Math.sin(((new Date(at).getUTCMonth() - 2) / 12) * 2 * Math.PI)
    if (chance.is(season)) return at
  }
}

function fieldsOf(chance: Chance, joinedAt: number, i: number): Record<string, unknown> {
  const day = (at: number) => new Date(at).toISOString().slice(0, 10)
  const fields: Record<string, unknown> = { member_since: day(joinedAt) }
  if (!chance.is(0.11)) fields.town = chance.pick(towns)
  if (!chance.is(0.24)) fields.flying_style = styles.filter(() => chance.is(0.4))
  if ((fields.flying_style as string[] | undefined)?.length === 0) delete fields.flying_style
  if (chance.is(0.4)) fields.first_kite = chance.pick(kites)
  if (chance.is(0.48))
    fields.birthday = day(
      Date.UTC(chance.between(1945, 2008), chance.between(0, 11), chance.between(1, 28)),
    )
  if (chance.is(0.6)) fields.line_hand = chance.is(0.86) ? 'right' : 'left'
  if (chance.is(0.45)) fields.shop_customer_id = `GK-${10_000 + i}`
  // Some live far from the coast; by number and not by chance, so that the rest of the account stays as it is.
  const abroad = zones[i % (zones.length * 12)]
  if (abroad) fields.time_zone = abroad
  return fields
}
const zones = ['Europe/Paris', 'America/New_York', 'Pacific/Auckland', 'Asia/Tokyo']

function personStatements(db: Database) {
  return {
    person: prepared<
      {
        address: string
        normal: string
        domain: string
        first: string | null
        last: string | null
        fields: string
        joined: number
        changed: number
      },
      { id: number }
    >(db, (value) =>
      q
        .insertInto('people')
        .values({
          address: value('address'),
          normal: value('normal'),
          domain: value('domain'),
          first_name: value('first'),
          last_name: value('last'),
          fields: value('fields'),
          joined_at: value('joined'),
          changed_at: value('changed'),
        })
        .returning('id'),
    ),
    subscription: prepared<{ person: number; list: number; state: string; since: number }>(
      db,
      (value) =>
        q.insertInto('subscriptions').values({
          person_id: value('person'),
          list_id: value('list'),
          state: value('state'),
          since: value('since'),
        }),
    ),
    evidence: prepared<{
      person: number
      list: number
      at: number
      state: string
      way: string
      ref: string | null
      sending: number | null
      wording: number | null
    }>(db, (value) =>
      q.insertInto('evidence').values({
        person_id: value('person'),
        list_id: value('list'),
        at: value('at'),
        state: value('state'),
        way: value('way'),
        way_ref: value('ref'),
        sending_id: value('sending'),
        wording_id: value('wording'),
      }),
    ),
    tag: prepared<{ person: number; tag: number }>(db, (value) =>
      q.insertInto('person_tags').values({ person_id: value('person'), tag_id: value('tag') }),
    ),
  }
}
