import { DRAWS, habitsOf, rehearse, together, walk, type Audience } from '../core/rehearsal'
import { advance, emptyMap, insertStep, type NewStep, type SequenceMap } from '../core/sequences'
import { tiers } from '../core/standing'
import { DAY, HOUR } from '../core/time'
import type { Measure } from './harness'
import { NOW } from './million'

const PEOPLE = 2_000
const rehearsing = { seed: 1, from: NOW, days: 60 }

/** Twelve steps with a fork and a split, a wait for a click and one within hours. */
export function twelveSteps(): SequenceMap {
  const wait = (days: number): NewStep => ({ kind: 'wait', ms: days * DAY })
  const mail = (mailingId: number): NewStep => ({ kind: 'mail', mailingId })
  const clicked = { is: 'clicked' as const, mail: null }
  const steps: NewStep[] = [
    mail(1),
    { ...wait(2), ...{ hours: { days: [1, 2, 3, 4, 5], from: 480, to: 1_080 } } } as NewStep,
    mail(2),
    { kind: 'wait', ms: 5 * DAY, until: { is: 'happens', what: clicked }, ways: [{ next: null }] },
    mail(3),
    wait(10),
    mail(4),
    { kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
  ]
  let map = steps.reduce(
    (so, step, n) => insertStep(so, n === 0 ? null : `s${n - 1}`, `s${n}`, step),
    emptyMap,
  )
  map = insertStep(map, 's0', 'split', { kind: 'split', ways: [{ share: 500, next: null }] })
  map = insertStep(map, { step: 'split', way: 1 }, 'other', mail(5))
  map = insertStep(map, 's2', 'fork', { kind: 'fork', ways: [{ when: clicked, next: null }] })
  return insertStep(map, { step: 'fork', way: 1 }, 'thanks', mail(6))
}

const audience: Audience = {
  people: Array.from({ length: PEOPLE }, (_, n) => ({
    ...{ id: n + 1, tier: tiers[n % 4]!, sent: 24, opened: (n % 4) * 6, clicked: n % 4 },
    ...{ orders: n % 6 === 0 ? 2 : 0, days: 300, fields: {}, opens: [] },
  })),
  ...{ isAll: false, fits: {} },
  customs: {
    ...{ zone: 'Europe/London', hoursAhead: 0, openDelay: 5 * HOUR, leaveOfOpen: 0.01 },
    hours: Array.from({ length: 24 }, (_, hour) => (hour < 6 ? 0.1 : 0.8)),
    ...{ events: {}, links: {}, quiet: null, cap: null, inside: null, opens: [] },
  },
}

/**
 * One draw of a rehearsal, against the calls of `advance` alone that it makes; beside it how long until all is known that is
 * shown, which is forty draws.
 */
export const rehearsals: Measure = {
  name: 'rehearsal',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 5,
  run() {
    const map = twelveSteps()
    const habits = habitsOf(audience)
    const calls = callsOf(map)
    const draw = () => rehearse(map, audience, rehearsing, 0, habits)
    const alone = () => calls.forEach((call) => advance(map, call.place, call.facts, call.now))
    const timed = (work: () => unknown) => {
      work()
      const began = performance.now()
      work()
      return performance.now() - began
    }
    const all = timed(() =>
      together(
        Array.from({ length: DRAWS }, (_, no) => rehearse(map, audience, rehearsing, no, habits)),
      ),
    )
    const notes = { 'calls of advance': calls.length, 'all that is shown': all }
    return Promise.resolve({ ours: timed(draw), reference: timed(alone), notes })
  },
}

/** The steps that people go by, as calls with what was known then. */
function callsOf(map: SequenceMap) {
  const calls: {
    place: Parameters<typeof advance>[1]
    facts: Parameters<typeof advance>[2]
    now: number
  }[] = []
  for (const { id } of audience.people) {
    const facts = {
      ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'Europe/London' },
      ...{
        holds: () => false,
        lot: () => (id % 100) / 100,
        sharesOf: () => null,
        fieldOf: () => null,
        bestHour: () => 0,
      },
    }
    const life = { when: () => Infinity, next: () => Infinity, leaves: () => Infinity, got() {} }
    const walker = { ...facts, life }
    const from = NOW + id * 60_000
    walk(map, walker, from, from + 60 * DAY, {
      passed: (step, _way, at) =>
        calls.push({ place: { step, due: at, arrived: at, visit: 0 }, facts, now: at }),
    })
  }
  return calls
}
