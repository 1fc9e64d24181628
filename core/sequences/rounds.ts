import { isStepId } from './happening'

/** A figure of a sequence's results, whose rounds are looked at one by one. */
export interface RoundsAsked {
  /** Who came in and was not held out, whether or not they are still inside; who is inside; who came to the end; who left on the way. */
  stand: (typeof roundStands)[number]
  /** Of those who came in: who went by this step; of those inside: who stands there. Null: wherever. */
  step: string | null
  /** Of those who went by the step: by which of its ways; of a goal 1: reached it. Null: by any. */
  way: number | null
  /** Of those who left: why. Null: whyever. */
  why: string | null
  /** How many of the latest are passed over. */
  offset: number
}

export const roundStands = ['came', 'inside', 'finished', 'left'] as const

/** One time that somebody was inside. Times are UTC ms. */
export interface Round {
  person_id: number
  /** As they are called; null: they were erased. */
  name: string | null
  /** Which time it is, counted from 0. */
  round: number
  entered_at: number
  state: 'inside' | 'finished' | 'left'
  /** Where they stand, or came out. */
  step: string
  /** When they go on; of those inside. */
  due: number
  why: string | null
  ended_at: number | null
}

/** So many at once. */
export const ROUNDS_SHOWN = 30
const LONGEST_WHY = 200
const MOST_WAYS = 9
const MOST_PASSED_OVER = 10_000_000

/** Reads which figure is meant from the words of a page's address; null: none is. */
export function readRoundsAsked(query: Readonly<Record<string, unknown>>): RoundsAsked | null {
  const { of, step, way, why, offset } = query
  const stand = roundStands.find((one) => one === of)
  if (!stand) return null
  const from = Math.floor(Number(offset))
  const at = stand === 'came' || stand === 'inside' ? step : undefined
  const byWay = stand === 'came' && isStepId(at) && typeof way === 'string' && /^\d$/.test(way)
  return {
    stand,
    step: isStepId(at) ? at : null,
    way: byWay && Number(way) <= MOST_WAYS ? Number(way) : null,
    why: stand === 'left' && typeof why === 'string' && why ? why.slice(0, LONGEST_WHY) : null,
    offset: from > 0 && from <= MOST_PASSED_OVER ? from : 0,
  }
}

/** The same as words of an address; each key stands, so that what was asked before goes. */
export function writeRoundsAsked(asked: Partial<RoundsAsked> & Pick<RoundsAsked, 'stand'>) {
  const { stand, step, way, why, offset } = asked
  return {
    ...{ of: stand as string, step: step ?? undefined },
    ...{ way: way == null ? undefined : String(way), why: why ?? undefined },
    offset: offset ? String(offset) : undefined,
  }
}
