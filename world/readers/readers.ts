import { Agenda } from '../agenda'
import { chanceOf } from '../chance'
import type { FollowedClock } from '../followed-clock'
import type { Customers } from '../shop/customers'
import { shopHour } from '../shop/hours'
import { visit, type ShopAct } from '../shop/visit'
import { visitorsOf, type Visitor } from '../visitors/hour'
import { isShop } from '../web/site'
import type { SiteForms } from '../web/site-forms'
import { carryOut, type Deed } from './deeds'
import { agentOf } from './habits'
import { readLetter, type ReadLetter } from './letter'
import { outcomeOf, type ArrivedMail } from './outcome'

const HOUR = 3_600_000
const WEEK = 7 * 24 * HOUR

/** Who gets more letters a week than so many opens fewer of them. */
const GLADLY = 3

/**
 * The people of the practice world. Of what Satchel does they have nothing but the mail that came: they fetch its pictures
 * and links, leave by its unsubscribe link, and complain to their provider. And they are the shop's customers, who come in
 * and buy with or without a letter.
 */
export function gatherReaders(options: {
  clock: FollowedClock
  reportsUrl: string | null
  seed: string
  /** Where the shop tells what happens in it; null: it keeps that to itself. */
  tell: ((told: { kind: ShopAct['kind']; entry: ShopAct['entry'] }) => void) | null
  /** Whom the shop knows; null: nobody comes in but by a letter. */
  customers?: Customers | null
  /** The forms of the practice site, and how somebody comes to one; null: nobody does. */
  site?: { forms: SiteForms; visit: (visitor: Visitor) => Promise<void> } | null
}) {
  const { clock, reportsUrl, seed, tell, customers = null, site = null } = options
  const agenda = new Agenda<Deed>()
  const received = new Map<string, number[]>()
  /** How whoever got a letter could leave by it. */
  const waysOut = new Map<string, string>()
  let underWay = 0
  let stopped = false
  /** Up to which hour of the shop's days all is on the agenda; hours since 1970. */
  let planned: number | null = null
  /** What came before has happened already, and been told. */
  let opened: number | null = null

  /** A letter came into a mailbox: what will come of it is put on the agenda. */
  function take(mail: ArrivedMail & { source: string }): ReadLetter {
    const letter = readLetter(mail.source)
    const now = clock.now()
    if (letter.unsubscribe) waysOut.set(mail.address, letter.unsubscribe)
    const patience = patienceOf(mail.address, now)
    for (const { at, deed } of outcomeOf(mail, letter, { now, seed, patience }))
      agenda.add(at, deed)
    return letter
  }

  function patienceOf(address: string, now: number): number {
    const week = (received.get(address) ?? []).filter((at) => at > now - WEEK)
    week.push(now)
    received.set(address, week)
    return week.length <= GLADLY ? 1 : GLADLY / week.length
  }

  /** A link led to the shop: what comes of it is put on the agenda. */
  function goShopping({ address, url }: { address: string; url: string }, to: URL) {
    if (!isShop(to)) return
    let n = 0
    const chance = () => chanceOf(seed, 'shop', address, url, n++)
    const number = `S-${Math.floor(chanceOf(seed, address, url) * 1e9)}`
    const now = clock.now()
    for (const { after, kind, entry } of visit(address, to, number, chance))
      agenda.add(now + after, { do: 'shop', kind, entry, at: now + after })
  }

  /** What happens in the shop and on its site from hour to hour is put on the agenda as each begins. */
  function planHours(now: number) {
    if (!clock.isKnown()) return
    const hour = Math.floor(now / HOUR)
    planned ??= hour - 1
    opened ??= now
    for (; planned < hour; planned++) {
      planShop(planned + 1, opened)
      if (!site) continue
      for (const visitor of visitorsOf(seed, planned + 1, site.forms, customers?.all() ?? []))
        if (visitor.at >= opened) agenda.add(visitor.at, { do: 'visit', visitor })
    }
  }

  function planShop(hour: number, opened: number) {
    if (!customers || !tell) return
    const { acts, joining, leaving } = shopHour(seed, hour, customers.all())
    for (const { at, kind, entry } of acts)
      if (at >= opened) agenda.add(at, { do: 'shop', kind, entry, at })
    for (const address of joining) customers.add(address)
    for (const { at, address } of leaving) {
      const url = waysOut.get(address)
      if (url) agenda.add(at, { do: 'leave-by-page', url, agent: agentOf(address) })
    }
  }

  async function begin(deed: Deed) {
    try {
      if (deed.do === 'shop') {
        const at = new Date(Math.min(deed.at, clock.now())).toISOString()
        // Who is on file has no time of coming, only of joining, which is when it is told.
        const entry = deed.kind === 'people' ? deed.entry : { ...deed.entry, at }
        return void tell?.({ kind: deed.kind, entry })
      }
      if (deed.do === 'visit') return void (await site?.visit(deed.visitor))
      const to = await carryOut(deed, reportsUrl)
      if (deed.do === 'follow' && to && tell) goShopping(deed, to)
    } catch {
      // A reader whose request fails shrugs and goes on with the day.
    }
  }

  async function live() {
    while (!stopped) {
      const now = clock.now()
      planHours(now)
      const due = agenda.takeDue(now, Math.max(0, 40 - underWay))
      for (const deed of due) {
        underWay++
        void begin(deed).finally(() => underWay--)
      }
      if (due.length === 0 && underWay === 0) clock.followedTo(now)
      await new Promise((resolve) => setTimeout(resolve, due.length ? 2 : 10))
    }
  }
  void live()

  return {
    received: take,
    waiting: () => agenda.size + underWay,
    stop: () => (stopped = true),
  }
}
