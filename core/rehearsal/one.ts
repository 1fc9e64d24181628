import { deedOf, drawnAt, lotFor, type SequenceMap } from '../sequences'
import { readingHour, type Opens } from '../dispatch'
import { DAY, HOUR, MINUTE, type QuietHours } from '../time'
import type { Drawn } from './audience'
import type { Life } from './life'
import { walk, type Walked } from './walk'

/** What somebody is said to do with a mail, some hours after they got it. Who orders or unsubscribes opens it before. */
export type Reaction = 'nothing' | 'opens' | 'clicks' | 'orders' | 'unsubscribes'

/** What one person is said to do on their way. What is not said does not happen. */
export interface Decisions {
  /** By the step of a mail. */
  reactions: Readonly<Record<string, Reaction>>
  /** By the step of a mail that they click in: on the link to which address. Absent: on every one that is asked for. */
  links?: Readonly<Record<string, string>>
  /** By an event’s `deedOf`: so many days after they came in. */
  events: Readonly<Record<string, number>>
  /** By a split, or a mail with versions: on which way, or version, they fall. Absent: the first. */
  ways: Readonly<Record<string, number>>
  /** By a rule, as JSON: whether they fit it. */
  fits: Readonly<Record<string, boolean>>
}

/** Somebody goes by a step, by one of its ways. */
export interface Passing {
  step: string
  way: number
  at: number
}

/** How long a mail lies before anything is done with it. */
const LIES = 3 * HOUR
/** Nobody is followed longer, ms: a wait for a day that is far away may take years. */
const LONGEST = 4_000 * DAY

/** One person’s way through a map, step by step, as they are said to behave. */
export function walkOne(
  map: SequenceMap,
  decisions: Decisions,
  person: { zone: string; quiet?: QuietHours | null } & Pick<Drawn, 'fields' | 'opens'> & {
      everybody: readonly Opens[]
    },
  from: number,
): { passed: Passing[]; walked: Walked } {
  const passed: Passing[] = []
  const walker = {
    zone: person.zone,
    quiet: person.quiet ?? null,
    fieldOf: (field: string) => person.fields[field],
    bestHour: (zone: string) => readingHour(person.opens, person.everybody, zone),
    lot(id: string) {
      const step = map.steps[id]
      const drawn = step ? drawnAt(step) : []
      return drawn.length ? lotFor(drawn, decisions.ways[id] ?? 0) : 0
    },
    life: lifeAsSaid(decisions, from),
  }
  const walked = walk(map, walker, from, from + LONGEST, {
    passed: (step, way, at) => passed.push({ step, way, at }),
  })
  return { passed, walked }
}

function lifeAsSaid({ reactions, links = {}, events, fits }: Decisions, cameIn: number): Life {
  const opened = new Map<string, number>()
  const clicked = new Map<string, number>()
  let ordered = Infinity
  let left = Infinity
  const did = (event: string) =>
    events[event] === undefined ? Infinity : cameIn + events[event] * DAY
  const first = (times: Map<string, number>, mail: string | null) =>
    mail === null ? Math.min(Infinity, ...times.values()) : (times.get(mail) ?? Infinity)
  /** When they click on a link to an address, in one mail or in any. */
  function clickedOn(url: string, mail: string | null): number {
    const isOn = (step: string) => links[step] === undefined || links[step] === url
    return first(new Map([...clicked].filter(([step]) => isOn(step))), mail)
  }
  return {
    when(what) {
      if (what.is === 'ordered') return ordered
      if (what.is === 'did') return did(deedOf(what))
      if (what.is === 'fits') return fits[JSON.stringify(what.rule)] ? -Infinity : Infinity
      if (what.is === 'clicked' && what.link !== undefined) return clickedOn(what.link, what.mail)
      return first(what.is === 'opened' ? opened : clicked, what.mail)
    },
    next(after) {
      const all = [...opened.values(), ...clicked.values(), ordered]
      all.push(...Object.keys(events).map(did))
      return Math.min(Infinity, ...all.filter((at) => at > after))
    },
    leaves: () => left,
    got(step, at) {
      const does = reactions[step] ?? 'nothing'
      if (does === 'nothing') return
      const then = at + LIES
      opened.set(step, then)
      if (does === 'unsubscribes') left = Math.min(left, then + MINUTE)
      if (does === 'clicks' || does === 'orders') clicked.set(step, then + MINUTE)
      if (does === 'orders') ordered = Math.min(ordered, then + 10 * MINUTE)
    },
  }
}
