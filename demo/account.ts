import { noVariant, plainPlan, type DispatchPlan } from '../core/dispatch'
import { addDays, dayStart, DAY, HOUR, MINUTE } from '../core/time'
import { stampContent, stampRow, type Letter } from '../core/letters'
import { transact, type Database } from '../database'
import { createAccount, writeClock, addUser } from '../database/account'
import {
  answerApproval,
  askApproval,
  createMailing,
  mailingById,
  moveMailing,
  updateMailing,
} from '../database/mailings'
import { addComment, saveLetter, keepTemplate, addStamp } from '../database/letters'
import { addField, addList } from '../database/people'
import { chanceFrom } from './chance'
import { makeHistory, type PastMailing } from './history'
import {
  galeSeasonSale,
  LATEST_OFFER,
  offer,
  whereToFindUs,
  windNotes,
  withJournal,
  workshopNews,
} from './letters'
import { importBadly } from './bad-import'
import { makePeople, type DemoLists } from './people'
import { makePictures } from './pictures'
import { makeReplies } from './replies'
import { makeWishes } from './wishes'
import { makeSegments } from './segments'
import { makeLabels } from './labels'
import { makeSequences } from './sequences'
import { makeShop } from './shop'
import { makeVisitors } from './sign-up-history'
import { makeSignUps } from './sign-ups'

const zone = 'Europe/London'

const owner = { name: 'Wren Galewright', address: 'wren@galewright.example' }
const editor = { name: 'Tove Ashdown', address: 'tove@galewright.example' }
const others = [
  { name: 'Ines Corran', address: 'ines@galewright.example', role: 'writer' },
  { name: 'Bram Holloway', address: 'bram@galewright.example', role: 'viewer' },
] as const

/**
 * Makes the demo account in an empty database: Galewright Kites with eighteen months of history,
 * always the same for the same seed, up to `now`.
 */
export async function makeAccount(
  db: Database,
  options: { seed: number; size: number; now: number; passwordHash: string },
) {
  const { seed, size, now, passwordHash } = options
  const chance = chanceFrom(seed)
  createAccount(
    db,
    {
      name: 'Galewright Kites',
      zone,
      currency: 'GBP',
      sender_name: 'Galewright Kites',
      sender_address: 'hello@galewright.example',
      postal_address: 'Galewright Kites\n1 Slipway, Sandreach',
      pace_per_minute: 6_000,
      replies: 'kept',
    },
    now,
    { accent: '#22384f', second: '#e0a03a' },
  )
  writeClock(db, { anchorReal: now, anchorPractice: now, rate: 1, jumpTo: null })
  addUser(db, { ...owner, passwordHash, role: 'owner' }, now)
  addUser(db, { ...editor, passwordHash, role: 'editor' }, now)
  for (const other of others) addUser(db, { ...other, passwordHash }, now)
  const pictures = await makePictures(db, now)
  transact(db, () => {
    const lists: DemoLists = {
      windNotes: addList(
        db,
        { name: 'Wind notes', description: 'The weekly letter: wind, how-to, what is new.' },
        now - 900 * DAY,
      ),
      workshop: addList(
        db,
        { name: 'Workshop news', description: 'Courses and repair days.' },
        now - 900 * DAY,
      ),
      offers: addList(
        db,
        { name: 'Offers', description: 'What costs less for a while.' },
        now - 900 * DAY,
      ),
    }
    for (const field of fields) addField(db, field)
    const comers = makeSignUps(db, lists, pictures, now)
    const people = makePeople(db, chance, size, lists, comers, now)
    makeVisitors(db, chanceFrom(seed + 5), size, now)
    importBadly(db, lists.offers, now - 22 * HOUR)
    makeHistory(db, chance, people, pastMailings(lists, pictures, now), now)
    makeShop(db, chanceFrom(seed + 1), people, pictures, now)
    const segments = makeSegments(db, now)
    makeSequences(
      db,
      chanceFrom(seed + 2),
      people,
      { ...lists, quiet: segments['Gone quiet']! },
      now,
    )
    makeReplies(db, chanceFrom(seed + 3), now)
    makeWishes(db, chanceFrom(seed + 4), lists, now)
    plan(db, lists, pictures, now)
    makeLabels(db)
  })
}

const fields = [
  { key: 'town', name: 'Town', kind: 'text' as const },
  { key: 'flying_style', name: 'Flying style', kind: 'choices' as const },
  { key: 'first_kite', name: 'First kite', kind: 'text' as const },
  { key: 'member_since', name: 'Member since', kind: 'date' as const },
  { key: 'birthday', name: 'Birthday', kind: 'date' as const },
  { key: 'line_hand', name: 'Line hand', kind: 'choice' as const },
  { key: 'time_zone', name: 'Time zone', kind: 'text' as const },
  { key: 'shop_customer_id', name: 'Shop customer id', kind: 'text' as const },
]

/** Seventy mailings: Wind notes every fortnight, then weekly; workshop news and offers about monthly. */
function pastMailings(
  lists: DemoLists,
  pictures: Record<string, string>,
  now: number,
): PastMailing[] {
  const mailings: PastMailing[] = []
  const today = dayStart(now, zone)
  const at = (daysAgo: number, hours: number) => addDays(today, -daysAgo, zone) + hours * HOUR
  for (let n = 46; n >= 1; n--) {
    const weeksAgo = n > 20 ? 46 - n : 26 + (20 - n) * 2
    mailings.push(
      past(
        `Wind notes ${n}`,
        lists.windNotes,
        at(6 + weeksAgo * 7, 7.5),
        windNotes(n, pictures),
        n,
        1,
      ),
    )
    if (n === 46)
      mailings.at(-1)!.tried = [
        { subject: 'Your week of wind, hour by hour', liked: 1.13 },
        { subject: 'Wind notes 46', liked: 0.9 },
      ]
  }
  for (let n = 0; n < 12; n++)
    mailings.push(
      past(
        `Workshop places ${12 - n}`,
        lists.workshop,
        at(10 + n * 42, 9),
        workshopNews(12 - n, pictures),
        n,
        1.2,
      ),
    )
  for (let n = 0; n < 12; n++)
    mailings.push(
      past(
        `Offer: ${offer(LATEST_OFFER - n, pictures).subject}`,
        lists.offers,
        at(2 + n * 44, 10),
        offer(LATEST_OFFER - n, pictures),
        n,
        0.8,
      ),
    )
  return mailings.sort((a, b) => a.at - b.at)

  function past(
    name: string,
    list: number,
    when: number,
    letter: PastMailing['letter'],
    n: number,
    liking: number,
  ): PastMailing {
    const daysAgo = (now - when) / DAY
    const dip = daysAgo > 130 && daysAgo < 175
    return {
      name,
      list,
      at: when,
      letter,
      appeal: liking * (0.92 + 0.16 * Math.abs(Math.sin(n * 2.4))) * (dip ? 0.7 : 1),
      trouble: dip ? 6 : daysAgo < 8 ? 3.8 : 1,
    }
  }
}

/** What is going on: a letter that the proof will hold, two that are scheduled, one that is being written. */
function plan(db: Database, lists: DemoLists, pictures: Record<string, string>, now: number) {
  const today = dayStart(now, zone)
  const make = (name: string, listId: number, letter: PastMailing['letter']) =>
    createMailing(db, { name, listId, letter }, now - DAY)
  const schedule = (id: number, at: number) =>
    moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: at })
  const links = makeStamp(db, now)
  const next = make('Wind notes 47', lists.windNotes, links(windNotes(47, pictures)))
  schedule(next, addDays(today, 1, zone) + 7.5 * HOUR)
  // Its time has come: the engine looks at it first thing, and its proof holds it.
  const sale = make('Gale season sale', lists.offers, galeSeasonSale(pictures))
  talkAbout(db, mailingById(db, sale)!.letter_id, pictures, now)
  schedule(sale, now - MINUTE)
  const repair = make(
    'Repair day',
    lists.workshop,
    links(withJournal(workshopNews(2, pictures), now)),
  )
  schedule(repair, addDays(today, 5, zone) + 8 * HOUR)
  const workshop = make('Winter workshop', lists.workshop, workshopNews(3, pictures))
  updateMailing(db, workshop, { plan: JSON.stringify(winterPlan) })
  askTove(db, repair, now)
  keepTemplate(
    db,
    { name: 'Our sale', about: 'what is cheaper, and for whom' },
    galeSeasonSale(pictures),
    { id: 1, name: owner.name },
    now - 6 * DAY,
  )
}

/** Three subjects for the winter workshop; some are held out, to see what writing to people is worth. */
const winterPlan: DispatchPlan = {
  ...plainPlan,
  holdout: 0.05,
  goal: { is: 'order', what: '', days: 7 },
  test: {
    of: 'subject',
    variants: [
      noVariant,
      { ...noVariant, subject: 'Eight places, one winter kite' },
      { ...noVariant, subject: 'What will you sew this winter?' },
    ],
    share: 0.5,
    measure: 'open',
    hours: 6,
    decides: 'itself',
  },
}

/** The links under most letters, kept as a stamp; what puts it into a letter, above the footer. */
function makeStamp(db: Database, now: number) {
  const content = stampContent(whereToFindUs)
  const id = addStamp(db, 'Where to find us', content, now - 40 * DAY)
  return (letter: Letter): Letter => {
    const { rows } = letter.document
    const all = [...rows.slice(0, -1), stampRow('find-us', id, content), ...rows.slice(-1)]
    return { ...letter, document: { ...letter.document, rows: all } }
  }
}

/** Tove has read a letter and found it good. */
function askTove(db: Database, mailing: number, now: number) {
  const [wren, tove] = [owner, editor].map(({ name }, i) => ({ id: i + 1, name }))
  const letter = mailingById(db, mailing)!.letter_id
  askApproval(db, letter, { ofId: tove!.id, note: 'Is the date right?' }, wren!, now - 26 * HOUR)
  const said = { verdict: 'approved' as const, words: 'It is, and it reads well.', sawVersion: 1 }
  answerApproval(db, letter, said, tove!, now - 20 * HOUR)
}

/** The sale's letter was written in two sittings, and something in it was asked. */
function talkAbout(db: Database, letterId: number, pictures: Record<string, string>, now: number) {
  const by = { id: 1, name: owner.name }
  const letter = galeSeasonSale(pictures)
  const first = { ...letter, subject: 'Gale season: a fifth off until Sunday' }
  saveLetter(db, letterId, first, 1, by, now - 9 * HOUR)
  saveLetter(db, letterId, letter, 2, by, now - 3 * HOUR)
  const said = {
    blockId: 'stunt-title',
    text: 'Shall we say which force it holds to?',
    answerTo: null,
  }
  const tove = { id: 2, name: editor.name }
  const asked = addComment(db, letterId, said, tove, now - 2 * HOUR)
  const answer = { blockId: 'stunt-title', text: 'The line below does: force 6.', answerTo: asked }
  addComment(db, letterId, answer, by, now - HOUR)
}
