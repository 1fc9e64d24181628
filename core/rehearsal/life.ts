import { deedOf, type Happening } from '../sequences'
import { DAY, HOUR, MINUTE } from '../time'
import { linkIn, type Customs, type Often } from './audience'
import type { Habits } from './habits'
import { luckAt, luckOf } from './luck'

/** What can be asked of what somebody does. */
export type Deed = Exclude<Happening, { is: 'answered' }>

/** What somebody does who is inside, as far as a sequence can tell. Times are UTC ms; `Infinity`: never. */
export interface Life {
  /** When something holds of them first. */
  when(what: Deed): number
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
  /** When they first do an event, by its `deedOf`. */
  did(deed: string): number
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
  const ordered = firstTime(luck, 'order', habits.orders, cameIn)
  /** When they click on a link to an address, in one mail or in any. */
  function clickedOn(url: string, mail: string | null): number {
    let first = Infinity
    for (const [step, at] of clicked) {
      if ((mail !== null && mail !== step) || at >= first) continue
      const name = linkIn(step, url)
      if (luckAt(luckOf(luck, `link ${name}`), 0) < (customs.links[name] ?? 0)) first = at
    }
    return first
  }
  return {
    opened,
    clicked,
    when(what) {
      switch (what.is) {
        case 'ordered':
          return ordered
        case 'did':
          return this.did(deedOf(what))
        case 'opened':
        case 'clicked': {
          const times = what.is === 'opened' ? opened : clicked
          if (what.is === 'clicked' && what.link !== undefined)
            return clickedOn(what.link, what.mail)
          return what.mail === null ? earliest(times) : (times.get(what.mail) ?? Infinity)
        }
        case 'fits':
          return fits(what) ? -Infinity : Infinity
      }
    },
    did(event) {
      events ??= new Map()
      let at = events.get(event)
      if (at === undefined) {
        at = firstTime(luck, `event ${event}`, customs.events[event], cameIn)
        events.set(event, at)
      }
      return at
    },
    next(after) {
      let next = ordered > after ? ordered : Infinity
      for (const times of [opened.values(), clicked.values()])
        for (const at of times) if (at > after && at < next) next = at
      for (const name of Object.keys(customs.events)) {
        const at = this.did(name)
        if (at > after && at < next) next = at
      }
      return next
    },
    leaves() {
      return left
    },
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

/** When somebody first does what is done so often; `Infinity`: never. */
function firstTime(luck: number, name: string, often: Often | undefined, cameIn: number): number {
  if (!often) return Infinity
  const own = luckOf(luck, name)
  if ('share' in often)
    return luckAt(own, 1) < often.share ? cameIn + waitFor(often.mean, luckAt(own, 0)) : Infinity
  return often.perDay > 0 ? cameIn + waitFor(DAY / often.perDay, luckAt(own, 0)) : Infinity
}

function earliest(times: ReadonlyMap<string, number>): number {
  let first = Infinity
  for (const at of times.values()) if (at < first) first = at
  return first
}

/** A time until something that comes once in so long, ms. */
export const waitFor = (mean: number, luck: number) => -Math.log(1 - luck) * mean

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
