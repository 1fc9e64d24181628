import type { ReaderLanguage } from '../core/readers'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, q, prepared, type Database } from '../database'
import type { Chance } from './chance'
import type { DemoSignUp } from './sign-ups'

export interface Comers {
  /** How somebody came to a list at a time; null: before there were forms for it. Several lists at one time are one sending. */
  join(
    person: { id: number; normal: string; first: string | null; n: number },
    list: number,
    at: number,
  ): { sendingId: number; ref: string; wording: string } | null
}

/** Who came by which form: by their number and not by lot, so that the rest of the account stays as it is. */
export function comers(db: Database, forms: readonly DemoSignUp[]): Comers {
  const add = prepared<Record<string, unknown>, { id: number }>(db, (value) =>
    q
      .insertInto('sign_up_sendings')
      .values({
        ...{
          sign_up_id: value('form'),
          version: value('version'),
          language: 'en' as ReaderLanguage,
        },
        ...{
          at: value('at'),
          address: value('normal'),
          normal: value('normal'),
          given: value('given'),
        },
        ...{
          ticked: value('ticked'),
          page: value('page'),
          source: value('source'),
          device: value('device'),
        },
        ...{
          state: 'confirmed',
          person_id: value('person'),
          hash: value('hash'),
          ended_at: value('ended'),
        },
        ...{ mailed: 1, mailed_at: value('at') },
      } as never)
      .returning('id'),
  )
  const tick = prepared<{ ticked: string; id: number }>(db, (value) =>
    q
      .updateTable('sign_up_sendings')
      .set({ ticked: value('ticked') })
      .where('id', '=', value('id')),
  )
  const sent = new Map<
    string,
    { sendingId: number; ref: string; form: DemoSignUp; ticked: string[] }
  >()
  /** Whose sendings these are: people come one after the other. */
  let of = 0
  const order = [0, 2, 1, 0, 2, 2, 0, 1, 3, 0]
  return {
    join(person, list, at) {
      if (of !== person.id) sent.clear()
      of = person.id
      const key = `${person.id} ${at}`
      let found = sent.get(key)
      if (!found || !found.form.boxOf.has(list)) {
        const wanted = forms[order[person.n % order.length]!]!
        const fits = (form: DemoSignUp) =>
          form.boxOf.has(list) && at >= form.versions[0]!.from && at <= form.until
        const form = fits(wanted) ? wanted : forms.find(fits)
        if (!form) return null
        // Of those who see one of two by lot, a few more come by the one that asks for less.
        const version =
          form.test && at >= form.test.from
            ? form.test.versions[person.n % 20 < 11 ? 1 : 0]
            : form.versions.findLast(({ from }) => from <= at)!.version
        const { id } = add.one({
          ...{ form: form.id, version, person: person.id, normal: person.normal },
          ...{ at: at - (2 + (person.n % 50)) * MINUTE, ended: at, hash: `demo ${key} ${form.id}` },
          given: JSON.stringify(
            person.first && form.id !== forms[1]!.id ? { first_name: person.first } : {},
          ),
          ticked: '[]',
          page: form.pages[person.n % form.pages.length] ?? null,
          source: sourceOf(person.n),
          device: deviceOf(person.n),
        })!
        found = { sendingId: id, ref: `${form.name}, version ${version}`, form, ticked: [] }
        sent.set(key, found)
      }
      const { wording, partId } = found.form.boxOf.get(list)!
      found.ticked.push(partId)
      tick.run({ ticked: JSON.stringify(found.ticked), id: found.sendingId })
      return { sendingId: found.sendingId, ref: found.ref, wording }
    },
  }
}

const sources = ['', '', 'beach-map', 'poster', '', 'harbour-cafe', 'kite-calendar']
const sourceOf = (n: number) => {
  const source = sources[n % sources.length]
  return source ? JSON.stringify({ utm_source: source }) : '{}'
}
const deviceOf = (n: number) =>
  (['phone', 'computer', 'phone', 'phone', 'tablet', 'computer'] as const)[n % 6]!

/** Who only looked, who never confirmed, and who was kept away, over what came in by each form. */
export function makeVisitors(db: Database, chance: Chance, size: number, now: number) {
  const visit = prepared<Record<string, unknown>>(db, (value) =>
    q.insertInto('sign_up_visits').values({
      ...{ sign_up_id: value('form'), visitor: value('visitor'), version: value('version') },
      ...{ at: value('at'), language: 'en' as ReaderLanguage, device: value('device') },
      ...{ page: value('page'), source: value('source'), begun: value('begun') },
    } as never),
  )
  const rows = all(
    db,
    q
      .selectFrom('sign_up_sendings as s')
      .innerJoin('sign_ups as f', 'f.id', 's.sign_up_id')
      .select([
        's.id',
        's.sign_up_id',
        's.version',
        's.at',
        's.page',
        's.source',
        's.device',
        'f.name',
      ])
      .where('s.at', '>', now - 365 * DAY)
      .orderBy('s.id'),
  )
  const perSending = new Map([
    ['Twelve beaches guide', 19],
    ['At the foot of every page', 29],
    ['Wind notes, its own page', 3.4],
    ['Festival desk', 0.4],
  ])
  // Ever so many more people need no more lookers for each, or making them would take the most time.
  const share = Math.min(1, 20_000 / size)
  let n = 0
  for (const row of rows) {
    const fewer = row.name === 'Twelve beaches guide' && row.version === 4 ? 0.8 : 1
    const lookers = (perSending.get(row.name) ?? 1) * share * fewer
    const many = 1 + Math.floor(lookers) + (chance.is(lookers % 1) ? 1 : 0)
    for (let i = 0; i < many; i++) {
      const at =
        i === 0
          ? row.at - MINUTE
          : Math.min(now, row.at + Math.floor((chance.next() - 0.5) * 2 * DAY))
      const begun = i === 0 || chance.is(0.03) ? 1 : 0
      const m = i === 0 ? null : chance.between(0, 1_000)
      visit.run({
        ...{ form: row.sign_up_id, visitor: `demo${++n}`, version: row.version, at, begun },
        ...{ page: row.page, device: m === null ? row.device : deviceOf(m) },
        source: m === null ? row.source : sourceOf(m),
      })
    }
  }
  const other = prepared<Record<string, unknown>>(db, (value) =>
    q.insertInto('sign_up_sendings').values({
      ...{ sign_up_id: value('form'), version: value('version'), language: 'en' as ReaderLanguage },
      ...{ at: value('at'), address: value('normal'), normal: value('normal'), given: '{}' },
      ...{
        ticked: '["wind"]',
        page: value('page'),
        source: '{}',
        device: value('device'),
        ip: value('ip'),
      },
      ...{
        state: value('state'),
        doubt: value('doubt'),
        hash: value('hash'),
        over_due: value('over'),
      },
      ...{ ended_at: value('ended'), agent: value('agent') },
    } as never),
  )
  const known = (at: number, normal: string) => (at > now - 30 * DAY ? normal : '')
  for (const row of rows) {
    if (!chance.is(0.13)) continue
    const at = row.at + Math.floor(HOUR * chance.next() * 40)
    if (at > now - 7 * DAY) continue
    other.run({
      ...{
        form: row.sign_up_id,
        version: row.version,
        at,
        page: row.page,
        device: row.device,
        ip: null,
      },
      ...{
        normal: known(at, `slow${row.id}@oldmill.example`),
        state: 'lapsed',
        doubt: null,
        agent: null,
      },
      ...{ hash: `demo lapsed ${row.id}`, over: null, ended: at + 7 * DAY },
    })
  }
  const live = rows.filter(({ at, name }) => at > now - 40 * DAY && name !== 'Festival desk')
  for (let i = 0; i < Math.min(2_400, live.length * 6); i++) {
    const row = chance.pick(live)
    const doubt = chance.is(0.72)
      ? 'trap'
      : chance.is(0.6)
        ? 'fast'
        : chance.is(0.6)
          ? 'network'
          : 'thrown'
    const at = now - Math.floor(chance.next() * 20 * DAY)
    const look = doubt !== 'trap'
    // Of what is doubtful most was dropped by hand; a handful of the last days waits for a look.
    const waits = look && at > now - 3 * DAY && chance.is(0.12)
    other.run({
      ...{
        form: row.sign_up_id,
        version: row.version,
        at,
        page: row.page,
        device: 'unknown',
        ip: `203.0.113.${i % 200}`,
      },
      ...{
        normal: `${chance.pick(['win', 'best', 'info', 'deal'])}${i}@${chance.pick(['inkpost.example', 'veilpost.example', 'mailbin.example'])}`,
        doubt,
      },
      ...{ state: !look ? 'kept-away' : waits ? 'for-a-look' : 'dropped', agent: 'Mozilla/5.0' },
      ...{ hash: `demo bot ${i}`, over: waits ? at + 14 * DAY : null, ended: waits ? null : at },
    })
  }
}
