import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isAlike, joinFields } from './join'
import {
  choose,
  clashed,
  heard,
  keepMine,
  kept,
  lapsed,
  refused,
  saved,
  settledWith,
  shown,
  takeTheirs,
  toSave,
  unreachable,
  type Asked,
  type Join,
  type Kept,
  type Versioned,
} from './kept'

type Plan = Record<'a' | 'b' | 'c', number>
const join = joinFields as Join<Plan>
const known = (value: Plan, version = 1): Kept<Plan> =>
  heard(kept(), { value, version }, join, isAlike)
const plain: Plan = { a: 0, b: 0, c: 0 }

test('before anything is known nothing is shown, chosen or settled', () => {
  const state = kept<Plan>()
  expect(shown(state)).toBeNull()
  expect(settledWith(state)).toBe(false)
  expect(choose(state, plain)).toBe(state)
  expect(toSave(state)).toBeNull()
})

test('what is chosen while a saving is under way is kept, and saved after it', () => {
  const first = toSave(choose(known(plain), { ...plain, a: 1 }))!
  const later = choose(first.state, { ...shown(first.state)!, b: 2 })
  expect(toSave(later)).toBeNull()
  const after = saved(later, { value: first.save.value, version: 2 }, isAlike)
  expect(settledWith(after)).toBe(false)
  expect(toSave(after)!.save).toEqual({ value: { a: 1, b: 2, c: 0 }, version: 2 })
})

test('different fields of two people are joined; the same field waits until one is chosen', () => {
  const mine = toSave(choose(known(plain), { ...plain, a: 1 }))!.state
  expect(shown(clashed(mine, { value: { a: 0, b: 5, c: 0 }, version: 2 }, join, isAlike))).toEqual({
    a: 1,
    b: 5,
    c: 0,
  })
  const both = clashed(mine, { value: { a: 9, b: 5, c: 0 }, version: 2 }, join, isAlike)
  expect(both.clash).toMatchObject({ at: ['a'], mine: { a: 1 }, theirs: { a: 9 } })
  expect([toSave(both), settledWith(both)]).toEqual([null, false])
  expect(toSave(keepMine(both, join))!.save).toEqual({ value: { a: 1, b: 5, c: 0 }, version: 2 })
  expect(shown(takeTheirs(both))).toEqual({ a: 9, b: 5, c: 0 })
})

test('a refusal stays beside what was chosen until something else is; a line that broke is tried again', () => {
  const sent = toSave(choose(known(plain), { ...plain, a: 1 }))!.state
  const no = refused(sent, 'Too many.')
  expect([shown(no)!.a, toSave(no), settledWith(no)]).toEqual([1, null, false])
  expect(toSave(choose(no, { ...plain, a: 2 }))!.save.value.a).toBe(2)
  expect(toSave(unreachable(sent, 'No answer.'))!.save.value.a).toBe(1)
})

test('what arrived though its answer was lost is nobody else’s change', () => {
  const lost = unreachable(toSave(choose(known(plain), { ...plain, a: 1 }))!.state, 'No answer.')
  const further = choose(lost, { ...plain, a: 2 })
  const again = clashed(further, { value: { ...plain, a: 1 }, version: 2 }, join, isAlike)
  expect([again.clash, shown(again)!.a]).toEqual([null, 2])
})

test('of two answers the one that was asked for later counts, in whichever order they come', () => {
  const first = known(plain)
  const [older, newer] = [
    { savings: 0, order: 1 },
    { savings: 0, order: 2 },
  ]
  const taken = heard(
    { ...first, order: newer.order },
    { value: { ...plain, a: 2 }, version: 3 },
    join,
    isAlike,
  )
  expect(lapsed(older, taken)).toBe(true)
  const before = heard(
    { ...first, order: older.order },
    { value: { ...plain, a: 1 }, version: 2 },
    join,
    isAlike,
  )
  expect(lapsed(newer, before)).toBe(false)
})

/** A server with one plan that several pages change, whose answers come late, out of order, or never. */
function world(pages: number) {
  let stored: Versioned<Plan> = { value: plain, version: 1 }
  const states = Array.from({ length: pages }, () => kept<Plan>())
  /** Every choice that nobody has given up, by page and field: the last one. */
  const chosen = states.map(() => ({}) as Partial<Plan>)
  let orders = 0
  const flying: { page: number; arrive: () => void }[] = []
  return {
    states,
    chosen,
    flying,
    stored: () => stored,
    reload(page: number) {
      const asked: Asked = { savings: states[page]!.savings, order: ++orders }
      const answer = stored
      flying.push({
        page,
        arrive: () => {
          if (!lapsed(asked, states[page]!))
            states[page] = heard({ ...states[page]!, order: asked.order }, answer, join, isAlike)
        },
      })
    },
    choose(page: number, key: keyof Plan, n: number) {
      const before = shown(states[page]!)
      if (!before) return
      states[page] = choose(states[page]!, { ...before, [key]: n })
      chosen[page]![key] = n
    },
    save(page: number, fate: 'answers' | 'lost before' | 'lost after' | 'refuses') {
      const next = toSave(states[page]!)
      if (!next) return
      states[page] = next.state
      const { value, version } = next.save
      let answer = () => (states[page] = unreachable(states[page]!, 'No answer.'))
      if (fate === 'refuses') answer = () => (states[page] = refused(states[page]!, 'No.'))
      else if (fate !== 'lost before') {
        const theirs = stored
        if (theirs.version === version) {
          stored = { value, version: Number(version) + 1 }
          const now = stored
          if (fate === 'answers') answer = () => (states[page] = saved(states[page]!, now, isAlike))
        } else if (fate === 'answers')
          answer = () => (states[page] = clashed(states[page]!, theirs, join, isAlike))
      }
      flying.push({ page, arrive: answer })
    },
  }
}

const acts = fc.oneof(
  fc.record({
    is: fc.constant('choose' as const),
    page: fc.nat(1),
    key: fc.constantFrom('a' as const, 'b' as const, 'c' as const),
  }),
  fc.record({
    is: fc.constant('save' as const),
    page: fc.nat(1),
    fate: fc.constantFrom(
      'answers' as const,
      'answers' as const,
      'lost before' as const,
      'lost after' as const,
      'refuses' as const,
    ),
  }),
  fc.record({ is: fc.constant('reload' as const), page: fc.nat(1) }),
  fc.record({ is: fc.constant('arrive' as const), which: fc.nat(9) }),
)

test('whatever answers when: no choice is lost, and settled means that the server has it', () => {
  fc.assert(
    fc.property(fc.array(acts, { maxLength: 60 }), (steps) => {
      const all = world(2)
      let n = 0
      const look = () =>
        all.states.forEach((state) => {
          // What was chosen here is what is shown here, unless somebody changed the same after it had been saved.
          const here = shown(state)
          if (state.mine !== null) expect(here).toEqual(state.mine)
          if (state.problem && !state.problem.again) expect(state.mine).not.toBeNull()
          if (settledWith(state) && state.known!.version === all.stored().version)
            expect(here).toEqual(all.stored().value)
        })
      for (const step of steps) {
        if (step.is === 'choose') {
          const had = shown(all.states[step.page]!)
          all.choose(step.page, step.key, ++n)
          if (had) expect(shown(all.states[step.page]!)![step.key]).toBe(n)
        } else if (step.is === 'save') all.save(step.page, step.fate)
        else if (step.is === 'reload') all.reload(step.page)
        else {
          const [one] = all.flying.splice(step.which % Math.max(1, all.flying.length), 1)
          if (one) {
            const before = all.states[one.page]!
            const unsavedBefore = before.mine
            one.arrive()
            const after = all.states[one.page]!
            // An answer never takes away what is not on the server: it is still shown, there, or contested and kept.
            if (unsavedBefore) {
              const held = (after.clash?.mine ?? shown(after))!
              const base = before.known!.value
              for (const key of ['a', 'b', 'c'] as const)
                if (unsavedBefore[key] !== base[key]) expect(held[key]).toBe(unsavedBefore[key])
            }
          }
        }
        look()
      }
      // In the end all answers come, and whoever has a clash keeps theirs: every page gets what it shows saved.
      for (const one of all.flying.splice(0)) one.arrive()
      for (let round = 0; round < 8; round++)
        for (const page of [0, 1]) {
          const state = all.states[page]!
          if (state.clash) all.states[page] = keepMine(state, join)
          if (state.problem) all.states[page] = choose(state, shown(state)!)
          all.save(page, 'answers')
          all.reload(page)
          for (const one of all.flying.splice(0)) one.arrive()
        }
      for (const state of all.states) {
        expect(settledWith(state)).toBe(true)
        expect(shown(state)).toEqual(all.stored().value)
      }
    }),
    { numRuns: 600 },
  )
})

test('two people who changed different fields both find theirs, in whatever order it went', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(3), { maxLength: 20 }), (order) => {
      const all = world(2)
      for (const page of [0, 1]) all.reload(page)
      for (const one of all.flying.splice(0)) one.arrive()
      all.choose(0, 'a', 1)
      all.choose(1, 'b', 2)
      for (const which of [...order, 0, 1, 2, 3, 0, 1, 2, 3, 0, 1, 2, 3]) {
        if (which < 2) all.save(which, 'answers')
        else for (const one of all.flying.splice(0)) one.arrive()
        if (which === 3) for (const page of [0, 1]) all.reload(page)
      }
      for (const one of all.flying.splice(0)) one.arrive()
      expect(all.stored().value).toEqual({ a: 1, b: 2, c: 0 })
    }),
  )
})
