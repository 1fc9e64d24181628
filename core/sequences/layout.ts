import { reachableFrom, stepsInOrder, type SequenceMap } from './map'
import { waysOf } from './steps'

/** Where something stands on the drawn map: columns from the left, rows from the top. */
export interface LaidStop {
  id: string
  column: number
  row: number
}

/** A way between two stops: down the lane that it keeps free for itself. */
export interface LaidEdge {
  /** `start`, or a step. */
  from: string
  way: number
  /** A step, or `finish`. */
  to: string
  lane: number
  words: string
}

export interface Laid {
  stops: LaidStop[]
  edges: LaidEdge[]
  columns: number
  rows: number
}

/**
 * Lays a map out from top to bottom: a step stands below all that lead to it; the main way goes straight down, and each side
 * way has a lane to the right of it, in which nothing else stands, until it comes together with another. A map that goes
 * round is laid out as far as it can be.
 */
export function layOut(map: SequenceMap): Laid {
  const order = stepsInOrder(map)
  const place = new Map(order.map(({ id }, n) => [id, n]))
  const forward = (from: string, to: string | null) =>
    to === null || place.get(to)! > place.get(from)!
  const row = new Map<string, number>(order.map(({ id }) => [id, 1]))
  for (const { id, step } of order)
    for (const { next } of waysOf(step))
      if (next !== null && forward(id, next))
        row.set(next, Math.max(row.get(next)!, row.get(id)! + 1))
  const last = Math.max(0, ...row.values()) + 1
  const rowOf = (id: string | null) => (id === null ? last : row.get(id)!)

  const column = new Map<string, number>()
  const taken: { column: number; from: number; to: number }[] = []
  const take = (column: number, from: number, to: number) => taken.push({ column, from, to })
  const freeFrom = (least: number, from: number, to: number) => {
    const isTaken = (n: number) =>
      taken.some((one) => one.column === n && one.from <= to && from <= one.to)
    let n = least
    while (isTaken(n)) n++
    return n
  }
  /** Places a step and what follows it by its main ways, as far as that belongs to nobody else; what comes behind it. */
  const follow = (
    id: string | null,
    at: number,
    others: ReadonlySet<string>,
  ): { met: string[]; joins: string | null } => {
    const met: string[] = []
    let on = id
    while (on !== null && !column.has(on) && !others.has(on)) {
      column.set(on, at)
      met.push(on)
      const next: string | null = waysOf(map.steps[on]!)[0]!.next
      if (!forward(on, next)) break
      on = next
    }
    return { met, joins: on }
  }

  follow(map.first, 0, new Set())
  take(0, 0, last)
  const lanes = new Map<string, number>()
  for (const { id, step } of order) {
    const own = column.get(id) ?? 0
    const ways = waysOf(step)
    for (const [way, { next }] of ways.entries()) {
      if (way === 0) {
        lanes.set(`${id} 0`, own)
        continue
      }
      if (!forward(id, next)) continue
      // What the ways before it can reach is theirs: this one comes together with them there.
      const others = new Set(
        ways
          .slice(0, way)
          .flatMap((one) => (one.next === null ? [] : [...reachableFrom(map, one.next)])),
      )
      // It turns into its lane half a row below its step, and leaves it half a row above where it joins.
      const begins = rowOf(id) + 0.5
      const ends = (joins: string | null) => rowOf(joins) - 0.5
      // How far down it goes hangs on what belongs to it, and not on where it stands.
      const before = new Map(column)
      const { joins } = follow(next, -1, others)
      column.clear()
      for (const [one, at] of before) column.set(one, at)
      const lane = freeFrom(own + 1, begins, ends(joins))
      follow(next, lane, others)
      take(lane, begins, ends(joins))
      lanes.set(`${id} ${way}`, lane)
    }
  }
  const edges: LaidEdge[] = [
    { from: 'start', way: 0, to: map.first ?? 'finish', lane: 0, words: '' },
  ]
  for (const { id, step } of order)
    for (const [way, { next, words }] of waysOf(step).entries())
      edges.push({
        ...{ from: id, way, to: next ?? 'finish', words },
        lane: lanes.get(`${id} ${way}`) ?? column.get(id) ?? 0,
      })
  return {
    stops: [
      { id: 'start', column: 0, row: 0 },
      ...order.map(({ id }) => ({ id, column: column.get(id) ?? 0, row: row.get(id)! })),
      { id: 'finish', column: 0, row: last },
    ],
    edges,
    columns: 1 + Math.max(0, ...taken.map((one) => one.column)),
    rows: last + 1,
  }
}
