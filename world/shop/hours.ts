import { chanceOf } from '../chance'
import { newcomer } from './newcomers'
import { products } from './range'
import { visit, type ShopAct } from './visit'

const HOUR = 3_600_000

/** How many of a thousand visits of a day come in each hour of it: hardly any at night, most in the evening. */
const busy = [
  ...[6, 3, 2, 2, 3, 8, 20, 38, 48, 52, 54, 56],
  ...[62, 56, 50, 48, 50, 56, 66, 78, 84, 78, 52, 28],
]
/** The share of a day's visits that comes in an hour, counted since 1970. */
export const busyAt = (hour: number): number =>
  busy[((hour % 24) + 24) % 24]! / busy.reduce((sum, one) => sum + one, 0)
/** In these hours somebody stands at the till. */
const OPENS = 9
const CLOSES = 18

/** Of each customer, on a day: visits to the shop's site, people who join at the till, and people who leave, each without a letter. */
const VISITS = 0.045
const JOINS = 0.0009
const LEAVES = 0.00012
/** Of visits, those in which something is looked for. */
const SEARCHES = 0.3

const sought = ['delta', 'line', 'stunt kite', 'repair', 'workshop', 'reel', 'tails', 'power kite']

/**
 * What happens in the shop in one hour (counted since 1970), with or without letters: visits, searches, baskets, orders, and
 * who joins at the till or wants no more mail. Always the same for the same seed, hour and customers.
 */
export function shopHour(
  seed: string,
  hour: number,
  customers: readonly string[],
): {
  acts: { at: number; kind: ShopAct['kind']; entry: ShopAct['entry'] }[]
  joining: string[]
  leaving: { at: number; address: string }[]
} {
  const acts: { at: number; kind: ShopAct['kind']; entry: ShopAct['entry'] }[] = []
  const joining: string[] = []
  const leaving: { at: number; address: string }[] = []
  if (customers.length === 0) return { acts, joining, leaving }
  let n = 0
  const chance = () => chanceOf(seed, 'the shop', hour, n++)
  const ofDay = busyAt(hour)
  const somebody = () => customers[Math.floor(chance() * customers.length)]!
  const time = () => (hour + chance()) * HOUR
  for (let i = times(customers.length * VISITS * ofDay, chance()); i > 0; i--) {
    const at = time()
    const page = new URL(`https://galewright.example${pages[Math.floor(chance() * pages.length)]!}`)
    const address = somebody()
    if (chance() < SEARCHES) {
      const words = sought[Math.floor(chance() * sought.length)]!
      acts.push({
        at: at + 20_000,
        kind: 'events',
        entry: { address, name: 'search', properties: { words } },
      })
    }
    const number = `W-${hour}-${i}`
    for (const { after, kind, entry } of visit(address, page, number, chance, rarely))
      acts.push({ at: at + after, kind, entry })
  }
  const clock = ((hour % 24) + 24) % 24
  if (clock >= OPENS && clock < CLOSES)
    for (let i = times((customers.length * JOINS) / (CLOSES - OPENS), chance()); i > 0; i--) {
      const entry = newcomer(seed, hour, i)
      acts.push({ at: time(), kind: 'people', entry })
      joining.push(entry.address)
    }
  for (let i = times(customers.length * LEAVES * ofDay, chance()); i > 0; i--)
    leaving.push({ at: time(), address: somebody() })
  return { acts: acts.sort((a, b) => a.at - b.at), joining, leaving }
}

/** Who comes in without a letter looks more and buys less than who followed its link. */
const rarely = { looks: 0.6, baskets: 0.2, orders: 0.22 }

const pages = ['/', '/new-kites', '/spares', '/workshop', '/beach-reports', '/forecast'].concat(
  products.slice(0, 12).map(({ key }) => `/kites/${key}`),
)

/** How often something happens of which so much is to be expected: the fraction is a chance. */
export function times(expected: number, chance: number): number {
  return Math.floor(expected) + (chance < expected % 1 ? 1 : 0)
}
