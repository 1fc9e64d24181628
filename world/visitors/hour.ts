import { chanceOf } from '../chance'
import { agentOf } from '../readers/habits'
import { busyAt, times } from '../shop/hours'
import { newcomer } from '../shop/newcomers'
import { formOn, type SiteForm, type SiteForms } from '../web/site-forms'

/** What somebody does who comes to a page with a form: each does all that stands before it, too. */
export type Does = 'looks' | 'begins' | 'sends'

/** Somebody who comes to a page with a form, or a program that sends what it likes. */
export interface Visitor {
  /** When they come, ms since 1970. */
  at: number
  form: SiteForm
  /** The page of the site; null: the form's own page. */
  page: string | null
  /** What the page's address says of where they come from. */
  source: string | null
  does: Does | 'bot'
  address: string
  given: string
  /** They write their address with a slip of the hand, and are asked. */
  slips: boolean
  /** How many of the boxes they tick: this share of each that is not the first. */
  ticks: number
  /** The address they come from, one of this machine's own. */
  ip: string
  agent: string
}

const HOUR = 3_600_000
const VISITS_A_DAY = 130
const BOTS_A_DAY = 4
/** Of those who come, who begin to fill in a form, and who send it; on a page of its own they came for it. */
const shares = { 'in-page': { begins: 0.09, sends: 0.045 }, hosted: { begins: 0.42, sends: 0.3 } }
/** Of those who send, who are on file already, and who mistype. */
const KNOWN = 0.08
const SLIPS = 0.05
/** Of those who come to the site, who land on a form's own page instead. */
const TO_OWN_PAGE = 0.05

const pages = [
  ...['/', '/', '/new-kites', '/beaches', '/beaches', '/beaches', '/beach-reports'],
  ...['/workshop', '/line-care', '/forecast', '/spares', '/festival'],
]
const sources = [null, null, null, 'beach-map', 'poster', 'harbour-cafe', 'kite-calendar']

/** Who comes to the forms of the practice site in one hour (counted since 1970); always the same for the same seed and hour. */
export function visitorsOf(
  seed: string,
  hour: number,
  site: SiteForms,
  customers: readonly string[],
): Visitor[] {
  let n = 0
  const chance = () => chanceOf(seed, 'visitors', hour, n++)
  const pick = <T>(of: readonly T[]) => of[Math.floor(chance() * of.length)]!
  const hosted = site.forms.filter(({ kind }) => kind === 'hosted')
  const visitor = (i: number, bot: boolean): Visitor | null => {
    const own = hosted.length > 0 && chance() < TO_OWN_PAGE
    const page = own ? null : pick(pages)
    const form = page ? formOn(site, page) : pick(hosted)
    const going = chance()
    const known = chance() < KNOWN && customers.length > 0
    const somebody = newcomer(`${seed} visitor`, hour, bot ? 1_000 + i : i)
    const address = known ? pick(customers) : somebody.address
    if (!form) return null
    const { begins, sends } = shares[form.kind]
    return {
      ...{ at: (hour + chance()) * HOUR, form, page, source: pick(sources) },
      does: bot ? 'bot' : going < sends ? 'sends' : going < begins ? 'begins' : 'looks',
      ...{ address, given: somebody.values.first_name, slips: chance() < SLIPS },
      ticks: chance(),
      ip: bot ? BOTS_LIVE_AT : `127.${part(chance())}.${part(chance())}.${part(chance())}`,
      agent: bot ? 'Mozilla/5.0 (compatible)' : browserOf(address),
    }
  }
  const many = (aDay: number) => times(aDay * busyAt(hour), chance())
  const people = Array.from({ length: many(VISITS_A_DAY) }, (_, i) => visitor(i, false))
  const bots = Array.from({ length: times(BOTS_A_DAY / 24, chance()) }, (_, i) => visitor(i, true))
  return [...people, ...bots].filter((one) => one !== null)
}

const BOTS_LIVE_AT = '127.66.6.6'
const part = (chance: number) => 1 + Math.floor(chance * 253)

/** What they look at pages with: phones as often as they read mail on one. */
const browserOf = (address: string) =>
  agentOf(address).includes('phone')
    ? 'Mozilla/5.0 (Linux; Android 14) Browser/12.0 Mobile'
    : agentOf(address).includes('tablet')
      ? 'Mozilla/5.0 (Tablet) Browser/12.0'
      : 'Mozilla/5.0 (X11; Linux x86_64) Browser/12.0'
