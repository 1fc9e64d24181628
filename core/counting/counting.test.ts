import fc from 'fast-check'
import { expect, test } from 'vitest'
import { recipientStates } from '../delivery'
import { isCounted, isIn, recipientsOf, statesOf, totalOf } from '.'

test('every state is counted in one of answered, waiting, uncertain and dropped, and in one alone', () => {
  for (const state of recipientStates) {
    const homes = [
      isIn(state, 'answered'),
      isIn(state, 'waiting'),
      state === 'uncertain',
      state === 'dropped',
    ].filter(Boolean)
    expect([state, homes.length]).toEqual([state, 1])
  }
})

test('delivered and bounced are apart, and are all who were answered', () => {
  expect([...statesOf.delivered, ...statesOf.bounced].sort()).toEqual([...statesOf.answered].sort())
})

const recipient = fc.record({
  state: fc.constantFrom(...recipientStates),
  openedAt: fc.option(fc.nat()),
  clickedAt: fc.option(fc.nat()),
  leftAt: fc.option(fc.nat()),
})

test('totals by state give what counting one by one gives', () => {
  fc.assert(
    fc.property(fc.array(recipient), (rows) => {
      const totals = Object.fromEntries(
        recipientStates.map((state) => [state, rows.filter((row) => row.state === state).length]),
      )
      for (const count of Object.keys(statesOf) as (keyof typeof statesOf)[])
        expect(totalOf(totals, count)).toBe(rows.filter((row) => isCounted(row, count)).length)
      expect(recipientsOf(totals)).toBe(rows.length)
    }),
  )
})
