import { expect, test } from 'vitest'
import {
  advance,
  enter,
  isHeldOut,
  mailingsOfStep,
  type InsideFacts,
  type SequenceMap,
  type MapMark,
} from '../core/sequences'
import { sequenceTemplates } from '../core/sequences/templates'
import { DAY, dayOf, HOUR, practiceTime } from '../core/time'
import { all, one, q, run } from '../database'
import { readClock } from '../database/account'
import { somebody } from '../database/made-up'
import { addList, tagNamed, tagPeople } from '../database/people'
import { addSegment } from '../database/segments'
import { readSequences, sequenceById, standingOf } from '../database/sequences'
import { demoInBrowser } from './demo-in-browser'
import { until } from './installation'

/** Each template is begun from, started, and sent to somebody who does nothing but what lets them in. */
const { satchel, visitor, page, jumpTo } = demoInBrowser(200, { unread: true })
const practice = () => practiceTime(readClock(satchel.db)!, Date.now())
const arrived = async () => {
  // Most of a year goes by in about a minute, and on a slow machine in ten.
  await until('the clock is there', () => readClock(satchel.db)!.jumpTo === null, 1_200_000)
}
const zone = 'Europe/London'
const WAITS_BY_TAG = 'Waits for a letter'

interface Begun {
  key: string
  id: number
  list: number
  person: number
}
const begun: Begun[] = []
const begunFrom = (key: string) => begun.find((one) => one.key === key)!
const mapOf = ({ id }: Begun) => sequenceById(satchel.db, id)!.map

/** The mails that somebody gets who does nothing, in their order, with the waits of the map for as long as they last. */
function mailsOf(map: SequenceMap): number[] {
  const facts: InsideFacts = {
    ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
    ...{ holds: () => false, lot: () => 0.5, sharesOf: () => null, fieldOf: () => dayOf(0, 'UTC') },
    bestHour: () => 8,
  }
  const mails: number[] = []
  for (let place = enter(map, 0, facts); place;) {
    const { effects, next } = advance(map, place, facts, place.due)
    for (const effect of effects) if (effect.is === 'mail') mails.push(effect.mailingId)
    place = next
  }
  return mails
}
const gotBy = (person: number, round: number) =>
  all(
    satchel.db,
    q
      .selectFrom('recipients')
      .select('mailing_id')
      .where('person_id', '=', person)
      .where('round', '=', round)
      .where('accepted_at', 'is not', null)
      .orderBy('accepted_at'),
  ).map(({ mailing_id }) => mailing_id)

/** What is known of somebody's way, for when it is another than it should be. */
function howItStands({ id, person }: Pick<Begun, 'id' | 'person'>): string {
  const of = (table: 'enrolments' | 'recipients' | 'sequence_trail') =>
    all(satchel.db, q.selectFrom(table).selectAll().where('person_id', '=', person))
  const mails = q
    .selectFrom('mailings')
    .select(['id', 'state', 'held_note', 'waiting_note'])
    .where('sequence_id', '=', id)
  return JSON.stringify([
    ...[of('enrolments'), of('sequence_trail'), of('recipients'), all(satchel.db, mails)],
    new Date(practice()),
  ])
}

/** What a template leaves to be chosen, as one chooses it beside *Start*. */
async function fillIn(key: string) {
  const choose = async (label: string, option: string) => {
    await page()
      .getByTitle(/^Start: /)
      .click()
    await page().getByLabel(label, { exact: true }).selectOption({ label: option })
  }
  if (key === 'win-back' || key === 'let-go') await choose('Which segment starts it', WAITS_BY_TAG)
  if (key === 'birthday') await choose('Which date', 'Birthday')
  if (key !== 'event') return
  await choose('Which date', 'Member since')
  for (const wait of await page()
    .getByTitle(/^Wait until /)
    .all()) {
    await wait.click()
    await page().getByLabel('Which date', { exact: true }).selectOption({ label: 'Member since' })
  }
}

/** The date of theirs that a template asks for: a birthday tomorrow, an event in eight days. */
function dateOf(key: string): Record<string, string> {
  if (key === 'birthday') {
    const [, month, day] = dayOf(practice() + DAY, zone).split('-')
    return { birthday: `1988-${month}-${day}` }
  }
  return key === 'event' ? { member_since: dayOf(practice() + 8 * DAY, zone) } : {}
}

/** Words in place of what stands in square brackets, and links where there are none. */
function written(json: unknown): unknown {
  if (typeof json === 'string') return json.replace(/\[([^\]]*)\]/g, '$1')
  if (Array.isArray(json)) return json.map(written)
  if (typeof json !== 'object' || json === null) return json
  return Object.fromEntries(
    Object.entries(json).map(([key, value]: [string, unknown]) => [
      key,
      (key === 'url' || key === 'href') && value === ''
        ? 'https://galewright.example/beaches'
        : written(value),
    ]),
  )
}

test.each(sequenceTemplates.map((one) => [one.name, one] as const))(
  '%s is begun from, lacks nothing but what it says, and starts',
  async (name, { key }) => {
    const now = practice()
    const before = readSequences(satchel.db).length
    const readers = `Readers of ${name}, ${before}`
    const list = addList(satchel.db, { name: readers, description: '' }, now)
    if (begun.length === 0)
      addSegment(
        satchel.db,
        WAITS_BY_TAG,
        { kind: 'tagged', tagId: tagNamed(satchel.db, 'waits') },
        now,
      )
    await page().goto(`${satchel.url}/sequences`)
    await page().getByRole('button', { name: 'New sequence' }).click()
    await until('it is made', () => readSequences(satchel.db).length > before)
    const id = Math.max(...readSequences(satchel.db).map((one) => one.id))
    await page().waitForURL(new RegExp(`/sequences/${id}$`))
    await page()
      .getByRole('region', { name: 'Begin from' })
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .click()
    const sequence = () => sequenceById(satchel.db, id)!
    await until('it is drawn', () => Object.keys(sequence().map.steps).length > 0)
    await page()
      .getByTitle(/^Start: /)
      .click()
    await page().getByLabel('On behalf of the list').selectOption({ label: readers })
    await until('it has its list', () => sequence().list_id === list)
    await fillIn(key)
    for (const mailing of Object.values(sequence().map.steps).flatMap(mailingsOfStep)) {
      const path = `${satchel.url}/api/mailings/${mailing}`
      const { letter } = (await (await page().request.get(path)).json()) as {
        letter: { version: number }
      }
      const data = { ...(written(letter) as object), version: letter.version }
      expect((await page().request.put(`${path}/letter`, { data })).status()).toBe(200)
    }
    const lacks = async () => {
      const got = await page().request.get(`${satchel.url}/api/sequences/${id}`)
      return ((await got.json()) as { problems: MapMark[] }).problems
    }
    let problems: MapMark[] = []
    await until(
      'nothing keeps it',
      async () => (problems = await lacks()).length === 0,
      20_000,
    ).catch(() => expect(problems).toEqual([]))
    await page().goto(`${satchel.url}/sequences/${id}`)
    await page().getByRole('button', { name: 'Start', exact: true }).click()
    await until('it runs', () => sequence().state === 'running')
    const person = somebody(satchel.db, `reads.${key}.${id}@harbourmail.example`, {
      ...{ list, now: practice() },
      values: dateOf(key),
    })
    begun.push({ key, id, list, person })
  },
)

/** Makes happen what lets somebody in, where joining the list or a date of theirs has not done it. */
function happens({ key, person }: Begun) {
  const at = practice()
  const order = { person_id: person, number: `T-${key}`, at, money: 4_000 }
  if (['first-order', 'review', 'refill'].includes(key))
    run(satchel.db, q.insertInto('orders').values(order))
  if (key === 'basket') {
    const event = { person_id: person, name: 'basket', at, props: '{"product":"gull"}' }
    run(satchel.db, q.insertInto('events').values(event))
  }
  if (key === 'win-back' || key === 'let-go')
    tagPeople(satchel.db, [person], tagNamed(satchel.db, 'waits'), true)
}

test('each sends to whoever does nothing all that its map says, on the practice clock', async () => {
  for (const one of begun) happens(one)
  const awaited = begun.filter(({ key }) => key !== 'anniversary')
  await jumpTo(practice() + 95 * DAY)
  await arrived()
  for (const one of awaited)
    expect([one.key, gotBy(one.person, 0)], howItStands(one)).toEqual([
      one.key,
      mailsOf(mapOf(one)),
    ])
}, 900_000)

test('a birthday comes again the year after, as a round of its own; the day they joined comes for the first time', async () => {
  const [birthday, anniversary] = [begunFrom('birthday'), begunFrom('anniversary')]
  // The clock stands a quarter behind the first birthday, and goes on until shortly behind the second.
  await jumpTo(practice() + 280 * DAY)
  await arrived()
  expect(gotBy(birthday.person, 0)).toEqual(mailsOf(mapOf(birthday)))
  expect(gotBy(birthday.person, 1), howItStands(birthday)).toEqual(mailsOf(mapOf(birthday)))
  expect(gotBy(birthday.person, 2)).toEqual([])
  expect(gotBy(anniversary.person, 0), howItStands(anniversary)).toEqual(
    mailsOf(mapOf(anniversary)),
  )
  await page().goto(
    `${satchel.url}/sequences/${birthday.id}?view=results&person=${birthday.person}`,
  )
  await page()
    .getByRole('region', { name: 'One person’s way' })
    .getByText(/came in: /)
    .nth(1)
    .waitFor()
  await visitor.expectAccessible()
}, 1_800_000)

test('a basket is bought after all by its second mail, whose way was decided; who is held out gets nothing', async () => {
  const all = readSequences(satchel.db).filter(({ name }) => name === 'Basket left behind')
  const { id } = all.find((one) => one.id !== begunFrom('basket').id)!
  const { map, list_id } = sequenceById(satchel.db, id)!
  await page().goto(`${satchel.url}/sequences/${id}?view=results`)
  const split = page().getByRole('region', { name: 'Split by lot: 2 ways' })
  await split.getByRole('button', { name: 'All by B' }).click()
  await split.getByText(/Who comes now goes A 0%, B 100%/).waitFor()
  expect(standingOf(satchel.db, id, 'split', map)?.shares).toEqual([0, 1_000])
  const leaves = (isOut: boolean) => {
    for (let n = 0; ; n++) {
      const person = somebody(satchel.db, `basket.${isOut}.${n}@harbourmail.example`, {
        ...{ list: list_id, now: practice() },
      })
      if (isHeldOut(id, map.start.heldOut!, person) !== isOut) continue
      const event = { person_id: person, name: 'basket', props: '{"product":"gull"}' }
      run(satchel.db, q.insertInto('events').values({ ...event, at: practice() }))
      return person
    }
  }
  const [buys, out] = [leaves(false), leaves(true)]
  await jumpTo(practice() + 5 * HOUR)
  await arrived()
  const mailings = ['mail-0', 'help'].flatMap((step) => mailingsOfStep(map.steps[step]!))
  expect(gotBy(buys, 0), howItStands({ id, person: buys })).toEqual(mailings.slice(0, 1))
  await jumpTo(practice() + 2 * DAY)
  await arrived()
  expect(gotBy(buys, 0), howItStands({ id, person: buys })).toEqual(mailings)
  const order = { person_id: buys, number: 'T-basket-bought', at: practice(), money: 8_900 }
  run(satchel.db, q.insertInto('orders').values(order))
  await jumpTo(practice() + 4 * DAY)
  await arrived()
  const stands = (person: number) =>
    one(
      satchel.db,
      q.selectFrom('enrolments').select(['state', 'why']).where('person_id', '=', person),
    )
  expect(stands(buys)).toEqual({ state: 'finished', why: 'goal' })
  expect([stands(out)?.state, gotBy(out, 0)]).toEqual(['left', []])
  await page().goto(`${satchel.url}/sequences/${id}?view=results&person=${buys}`)
  const way = page().getByRole('region', { name: 'One person’s way' })
  await way.getByText('sent “Shall we choose it with you?”').waitFor()
  await way.getByText('reached Goal: bought after all').waitFor()
  await way.getByText('out by the goal').waitFor()
}, 900_000)
