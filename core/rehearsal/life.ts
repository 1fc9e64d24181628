import type { Happening } from '../sequences'
import { DAY, HOUR, MINUTE } from '../time'
import type { Customs } from './audience'
import type { Habits } from './habits'
import { luckAt, luckOf } from './luck'

/** What somebody does who is inside, as far as a sequence can tell. Times are UTC ms; `Infinity`: never. */
export interface Life {
  /** When something holds of them first. */
  when(what: Happening): number
  /** When they next do anything that a sequence hears of, after a time. */
  next(after: number): number
  /** When they unsubscribe by themselves. */
  leaves(): number
  /** The mail of a step reached them. */
  got(step: string, at: number): void
}

/** What such a life says of itself besides: when the mail of which step was opened and clicked in first. */
export interface LifeByChance extends Life {
  opened: ReadonlyMap<string, number>
  clicked: ReadonlyMap<string, number>
}

/**
 * A life by chance. Each thing in it has luck of its own, so that it stays the same when the map around it is changed: two
 * maps that are rehearsed with one seed differ by what they are, and not by luck.
 * @param luck Theirs: a number, always the same.
 * @param fits Whether they fit a rule, which does not change.
 */
export function lifeByChance(
  luck: number,
  habits: Habits,
  customs: Customs,
  cameIn: number,
  fits: (what: Extract<Happening, { is: 'fits' }>) => boolean,
): LifeByChance {
  const opened = new Map<string, number>()
  const clicked = new Map<string, number>()
  let events: Map<string, number> | undefined
  let left = Infinity
  const ordered = first(habits.ordersPerDay, 'order')
  function first(perDay: number, name: string): number {
    return perDay > 0 ? cameIn + waitFor(DAY / perDay, luckAt(luckOf(luck, name), 0)) : Infinity
  }
  function event(name: string): number {
    events ??= new Map()
    let at = events.get(name)
    if (at === undefined) events.set(name, (at = first(customs.events[name] ?? 0, `event ${name}`)))
    return at
  }
  return {
    ...{ opened, clicked },
    when(what) {
      switch (what.is) {
        case 'ordered':
          return ordered
        case 'did':
          return event(what.event)
        case 'opened':
        case 'clicked': {
          const times = what.is === 'opened' ? opened : clicked
          return what.mail === null ? earliest(times) : (times.get(what.mail) ?? Infinity)
        }
        case 'fits':
          return fits(what) ? -Infinity : Infinity
      }
    },
    next(after) {
      let next = ordered > after ? ordered : Infinity
      const see = (at: number) => void (at > after && at < next && (next = at))
      opened.forEach(see)
      clicked.forEach(see)
      for (const name of Object.keys(customs.events)) see(event(name))
      return next
    },
    leaves: () => left,
    got(step, at) {
      const own = luckOf(luck, `mail ${step}`)
      if (luckAt(own, 0) >= habits.open) return
      const open = at + readingDelay(at, customs, own)
      opened.set(step, open)
      if (luckAt(own, 1) < habits.clickOfOpen)
        clicked.set(step, open + waitFor(2 * MINUTE, luckAt(own, 2)))
      if (luckAt(own, 3) < habits.leaveOfOpen)
        left = Math.min(left, open + waitFor(5 * MINUTE, luckAt(own, 4)))
    },
  }
}

function earliest(times: ReadonlyMap<string, number>): number {
  let first = Infinity
  for (const at of times.values()) if (at < first) first = at
  return first
}

/** A time until something that comes once in so long, ms. */
const waitFor = (mean: number, luck: number) => -Math.log(1 - luck) * mean

/** More draws than this are not worth what they mend. */
const TRIES = 6

/** How long a mail lies unread: mostly short, and sooner at hours at which people read. */
function readingDelay(at: number, { hours, hoursAhead, openDelay }: Customs, luck: number) {
  let delay = 0
  for (let tries = 0; tries < TRIES; tries++) {
    delay = waitFor(openDelay, luckAt(luck, 5 + 2 * tries))
    const hour = Math.floor((at + delay) / HOUR + hoursAhead) % 24
    if (luckAt(luck, 6 + 2 * tries) <= hours[hour]!) break
  }
  return delay
}
