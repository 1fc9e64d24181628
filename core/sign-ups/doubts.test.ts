import { expect, test } from 'vitest'
import { MINUTE } from '../time'
import { doubtOf, MOST, type Circumstances } from './doubts'
import { sendingAfter, sendingStates, type SendingState } from './states'

const usual: Circumstances = {
  ...{ trapped: false, drawnAt: 1_000_000, now: 1_020_000, thrownAway: false, suppressed: false },
  before: { address: 0, network: 0, form: 0 },
}
const doubt = (over: Partial<Circumstances>) => doubtOf({ ...usual, ...over })

test('a person who reads and writes is not doubted', () => {
  expect(doubt({})).toBeNull()
  expect(doubt({ before: { address: 1, network: 3, form: 100 } })).toBeNull()
})

test('each sign of a program has its reason', () => {
  expect(doubt({ trapped: true })).toBe('trap')
  expect(doubt({ drawnAt: null })).toBe('token')
  expect(doubt({ drawnAt: usual.now + 2 * MINUTE })).toBe('token')
  expect(doubt({ drawnAt: usual.now - 400 })).toBe('fast')
  expect(doubt({ thrownAway: true })).toBe('thrown')
  expect(doubt({ suppressed: true })).toBe('suppressed')
  expect(doubt({ before: { ...usual.before, address: MOST.address } })).toBe('address')
  expect(doubt({ before: { ...usual.before, network: MOST.network } })).toBe('network')
  expect(doubt({ before: { ...usual.before, form: MOST.form } })).toBe('form')
})

test('nothing is confirmed but what is pending, and nothing pending comes back from what is over', () => {
  const states = Object.keys(sendingStates) as SendingState[]
  expect(states.filter((state) => sendingAfter(state, 'confirm'))).toEqual(['pending'])
  expect(states.filter((state) => sendingAfter(state, 'let-through'))).toEqual(['for-a-look'])
  for (const over of ['confirmed', 'lapsed', 'already', 'dropped', 'kept-away'] as const)
    for (const event of ['confirm', 'lapse', 'let-through', 'drop'] as const)
      expect(sendingAfter(over, event)).toBeNull()
})
