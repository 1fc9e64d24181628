import { expect, test } from 'vitest'
import { DAY } from '../time'
import {
  emptyMap,
  insertStep,
  joinAt,
  mapCautions,
  mapProblems,
  repaired,
  USUAL_WAIT_DAYS,
  type Happening,
  type NewStep,
  type Repair,
  type SequenceMap,
} from '.'

const today = '2026-11-12'
/** Steps one behind the other, called by their places; side ways lead to Finish. */
const line = (...steps: NewStep[]) =>
  steps.reduce(
    (map, step, n) => insertStep(map, n === 0 ? null : `s${n - 1}`, `s${n}`, step),
    emptyMap,
  )
const mail = (mailingId: number): NewStep => ({ kind: 'mail', mailingId })
const wait = (days: number): NewStep => ({ kind: 'wait', ms: days * DAY })
const fork = (...asked: Happening[]): NewStep => ({
  ...{ kind: 'fork', ways: asked.map((when) => ({ when, next: null })) },
})
const goal = (when: Happening): NewStep => ({ kind: 'goal', name: '', when, out: true })
const opened = (mail: string): Happening => ({ is: 'opened', mail })
/** A side way with a step of its own, so that not all lead to the same. */
const apart = (map: SequenceMap, step: string, way: number) =>
  insertStep(map, { step, way }, `own-${way}`, wait(2))
const titles = (map: SequenceMap) => mapCautions(map, today).map(({ title }) => title)

/** Each mark that can be mended is gone once it is. */
function mended(map: SequenceMap, title: RegExp): SequenceMap {
  const marks = [...mapProblems(map, 1), ...mapCautions(map, today)]
  const mark = marks.find((one) => title.test(one.title))!
  const after = repaired(map, mark.repair!, 'new')
  const left = [...mapProblems(after, 1), ...mapCautions(after, today)]
  expect(left.filter((one) => title.test(one.title))).toEqual([])
  // What is mended once can't be mended again.
  if (mark.repair!.is !== 'wait a day' && mark.repair!.is !== 'wait for the answer')
    expect(repaired(after, mark.repair!, 'newer')).toBe(after)
  return after
}

test('a fork, goal or wait that asks about a mail nobody got before it is marked', () => {
  const asks = apart(line(mail(1), wait(2), fork(opened('s4')), wait(2), mail(2)), 's2', 1)
  expect(titles(asks)).toEqual(['A fork asks about a mail that nobody got before it.'])
  expect(Object.keys(mended(asks, /nobody got before/).steps)).not.toContain('s2')
  expect(titles(apart(line(mail(1), wait(2), fork(opened('s0'))), 's2', 1))).toEqual([])
  // A mail on another way is before it where that way comes together with its own.
  let sides = line(mail(1), wait(2), fork({ is: 'ordered' }), wait(2), fork(opened('aside')))
  sides = insertStep(sides, { step: 's2', way: 1 }, 'aside', mail(2))
  const own = apart(sides, 's4', 1)
  expect(titles(own)).toEqual(['A fork asks about a mail that nobody got before it.'])
  expect(titles(joinAt(own, 's2', 1, 's3'))).toEqual([])
  const late = insertStep(line(mail(1), goal(opened('s2')), mail(2)), 's1', 'w', wait(2))
  expect(titles(late)).toEqual(['A goal asks about a mail that nobody got before it.'])
})

test('a way that asks what one before it asks, or for whom a goal is ahead, is marked, and can go alone', () => {
  const clicked: Happening = { is: 'clicked', mail: 's0' }
  const twice = apart(line(mail(1), wait(2), fork(clicked, opened('s0'), clicked)), 's2', 1)
  expect(titles(twice)).toEqual([
    'Way 3 of a fork asks what a way before it asks, so nobody goes by it.',
  ])
  expect(mended(twice, /asks what a way/).steps.s2).toMatchObject({
    ways: [{ when: clicked }, { when: opened('s0') }],
  })
  const ahead = apart(
    line(mail(1), wait(2), fork({ is: 'ordered' }), goal({ is: 'ordered' })),
    's2',
    1,
  )
  expect(titles(ahead)).toEqual([
    expect.stringMatching(/^Way 1 of a fork is for those who reached/),
  ])
  expect(Object.keys(mended(ahead, /for those who reached/).steps)).not.toContain('s2')
  // Who did it after the goal's window was not taken there.
  const within = { ...goal({ is: 'ordered' }), within: 3 } as NewStep
  expect(titles(apart(line(mail(1), wait(2), fork({ is: 'ordered' }), within), 's2', 1))).toEqual(
    [],
  )
})

test('a goal that whoever comes in has reached is marked', () => {
  const segment = { kind: 'segment' as const, segmentId: 4 }
  const inside: Happening = { is: 'fits', rule: { kind: 'all', of: [segment] } }
  const map = line(mail(1), goal(inside))
  const by = (...starts: SequenceMap['start']['by']) => ({
    ...map,
    start: { ...map.start, by: starts },
  })
  const comes = { is: 'segment' as const, segmentId: 4, comes: true }
  const title = 'Whoever comes in has reached the goal already, and comes to no step.'
  expect(titles(by(comes))).toEqual([title])
  expect(titles(by({ ...comes, comes: false }))).toEqual([])
  expect(titles(by({ ...comes, segmentId: 5 }))).toEqual([])
  // Whoever comes in by another start may not have.
  expect(titles(by(comes, { is: 'joined', signUpId: null }))).toEqual([])
  expect(titles({ ...map, start: { ...map.start, rule: segment } })).toEqual([title])
})

test('a wait until a day that is past is marked, until today it is not', () => {
  const until = (day: string) =>
    line({ kind: 'wait', ms: DAY, until: { is: 'day', day, hour: 8 } }, mail(1))
  expect(titles(until('2026-11-11'))).toEqual([
    'A wait is until 2026-11-11, which is past: nobody waits there.',
  ])
  expect(titles(until(today))).toEqual([])
  expect(Object.keys(mended(until('2026-11-11'), /past/).steps)).toEqual(['s1'])
})

test('what can be mended for one is mended by its button: close mail, an early fork, a last wait, lost steps', () => {
  const two = mended(line(mail(1), mail(2)), /within a day/)
  expect(two.steps.s0).toMatchObject({ next: 'new' })
  expect(two.steps.new).toMatchObject({ kind: 'wait', ms: DAY, next: 's1' })
  const hand = {
    is: 'hand' as const,
    url: 'https://desk.example/in',
    how: 'add' as const,
    fields: [],
  }
  const early = line(
    { kind: 'do', acts: [hand] },
    fork({ is: 'answered', step: 's0', taken: true }),
    mail(1),
  )
  expect(mended(apart(early, 's1', 1), /what another program answered/).steps.new).toMatchObject({
    until: { is: 'happens', what: { is: 'answered', step: 's0', taken: true } },
    next: 's1',
  })
  expect(Object.keys(mended(line(mail(1), wait(2)), /last wait/).steps)).toEqual(['s0'])
  const lost = line(mail(1))
  const apartFrom = { ...lost, steps: { ...lost.steps, s9: { ...lost.steps.s0! } } }
  expect(mended(apartFrom, /never reached/)).toEqual(lost)
  const heeds = repaired(
    line(mail(1), wait(2), { ...mail(2), full: 'skip' } as NewStep),
    { is: 'wait for room' },
    '',
  )
  expect([heeds.steps.s0, heeds.steps.s2]).toMatchObject([
    { full: { waitDays: USUAL_WAIT_DAYS } },
    { full: 'skip' },
  ])
  expect(repaired(heeds, { is: 'wait for room' }, '')).toBe(heeds)
  // A mark that is old by now changes nothing.
  const repairs: Repair[] = [
    { is: 'remove', step: 'gone' },
    { is: 'remove way', step: 'gone', way: 1, when: { is: 'ordered' } },
    { is: 'remove lost' },
    { is: 'wait a day', step: 'gone' },
    { is: 'wait for the answer', step: 'gone' },
  ]
  for (const repair of repairs) expect(repaired(lost, repair, 'new')).toBe(lost)
})
