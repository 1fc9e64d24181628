import type { Happening, SequenceMap } from '../sequences'
import { readingHour } from '../dispatch'
import { DAY, HOUR } from '../time'
import type { Audience, Drawn } from './audience'
import { habitsOf, type Habits } from './habits'
import { lifeByChance, waitFor } from './life'
import { luckAt, luckOf, mixed } from './luck'
import { walk } from './walk'

/** How a rehearsal is done. */
export interface Rehearsing {
  /** The same seed, the same rehearsal. */
  seed: number
  /** When the first come in, UTC ms; the others within a week of it. */
  from: number
  /** For how long each is followed, days. */
  days: number
}

/** What came of it in one draw. Counts are of people, where nothing else is said. */
export interface Draw {
  cameIn: number
  inside: number
  finished: number
  /** Unsubscribed on the way. */
  left: number
  /** Reached a goal, and how many days after coming in the middle one of them did; null where nobody did. */
  goal: number
  goalDays: number | null
  /** Mails in all. */
  mails: number
  /** Got two mails or more within a day at some time. */
  close: number
  /** Mails by week since coming in. */
  weeks: number[]
  /** By step: how many went by each of its ways. */
  traffic: Record<string, number[]>
  /** By step: how many stand there at the end. */
  standing: Record<string, number>
  /** By mail’s step. */
  opened: Record<string, number>
  clicked: Record<string, number>
}

/** People come in within so long, each at a moment of their own. */
const COMING = 7 * DAY

/**
 * Walks everybody of an audience through a map once, each with a life by chance.
 * @param no Which draw of the rehearsal it is, counted from 0.
 * @param habits As {@link habitsOf} the audience has them; reckoned once for all draws.
 */
export function rehearse(
  map: SequenceMap,
  audience: Audience,
  { seed, from, days }: Rehearsing,
  no: number,
  habits: readonly Habits[] = habitsOf(audience),
): Draw {
  const { people, customs } = audience
  const draw: Draw = {
    ...{ cameIn: people.length, inside: 0, finished: 0, left: 0, goal: 0, goalDays: null },
    ...{ mails: 0, close: 0, weeks: new Array<number>(Math.ceil(days / 7)).fill(0) },
    ...{ traffic: {}, standing: {}, opened: {}, clicked: {} },
  }
  const goals: number[] = []
  const fitting = fitsOf(audience)
  for (const [n, person] of people.entries()) {
    const luck = mixed(mixed(seed, no), person.id)
    const cameIn = from + Math.floor(luckAt(luck, 0) * COMING)
    const life = lifeByChance(luck, habits[n]!, customs, cameIn, (what) => fitting(what, n))
    // Literals with spreads take many times as long to make as plain ones, and this is made for everybody in every draw; so
    // are a life and what a walk knows.
    const walker = {
      zone: customs.zone,
      quiet: customs.quiet,
      cap: customs.cap,
      otherMail: (until: number) => otherMail(luck, person, customs.cap!.days, cameIn, until),
      life,
      fieldOf(field: string) {
        return person.fields[field]
      },
      bestHour(zone: string) {
        return readingHour(person.opens, customs.opens, zone)
      },
      lot(step: string) {
        return luckAt(luckOf(luck, `lot ${step}`), 0)
      },
    }
    let last = -Infinity
    let isClose = false
    let reached = false
    const until = cameIn + days * DAY
    const walked = walk(map, walker, cameIn, until, {
      passed(step, way, at) {
        const ways = (draw.traffic[step] ??= [])
        ways[way] = (ways[way] ?? 0) + 1
        if (way !== 1 || map.steps[step]!.kind !== 'goal' || reached) return
        reached = true
        goals.push((at - cameIn) / DAY)
      },
      mailed(_step, _mailing, at) {
        draw.mails++
        draw.weeks[Math.min(draw.weeks.length - 1, Math.floor((at - cameIn) / (7 * DAY)))]!++
        isClose ||= at - last < DAY - HOUR
        last = at
      },
    })
    if (isClose) draw.close++
    if (walked.ended) draw[walked.ended.state]++
    else {
      draw.inside++
      draw.standing[walked.inside] = (draw.standing[walked.inside] ?? 0) + 1
    }
    for (const [acts, counts] of [
      [life.opened, draw.opened],
      [life.clicked, draw.clicked],
    ] as const)
      for (const [step, at] of acts) if (at <= until) counts[step] = (counts[step] ?? 0) + 1
  }
  for (const ways of Object.values(draw.traffic))
    for (let way = 0; way < ways.length; way++) ways[way] ??= 0
  draw.goal = goals.length
  draw.goalDays = goals.length ? goals.sort((a, b) => a - b)[goals.length >> 1]! : null
  return draw
}

/** When somebody got mail besides: as often as so far, at any time alike; from as long before they came in as a cap looks back. */
function otherMail(
  luck: number,
  { sent, days }: Drawn,
  before: number,
  cameIn: number,
  until: number,
): number[] {
  const times: number[] = []
  if (sent === 0) return times
  const own = luckOf(luck, 'other mail')
  let at = cameIn - before * DAY
  for (let n = 0; ; n++) {
    at += waitFor((days / sent) * DAY, luckAt(own, n))
    if (at > until) return times
    times.push(at)
  }
}

/** Rules are asked as people are now: nothing that the sequence does to them changes the answer. */
function fitsOf({ fits }: Audience) {
  const keys = new Map<Happening, readonly boolean[] | undefined>()
  return (what: Extract<Happening, { is: 'fits' }>, n: number): boolean => {
    if (!keys.has(what)) keys.set(what, fits[JSON.stringify(what.rule)])
    return keys.get(what)?.[n] ?? false
  }
}
