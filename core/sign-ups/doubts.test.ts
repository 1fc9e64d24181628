import { expect, test } from 'vitest'
import { doubtOf, DRAWN_FOR, MOST, type Circumstances } from './doubts'
import { sendingAfter, sendingStates, type SendingState } from './states'

const usual: Circumstances = {
  ...{ trapped: false, drawnFor: 20_000, suppressed: false, worked: true },
  before: { address: 0, network: 0, form: 0, unproven: 0 },
}
const doubt = (over: Partial<Circumstances>) => doubtOf({ ...usual, ...over })

test('a person who reads and writes is not doubted', () => {
  expect(doubt({})).toBeNull()
  expect(doubt({ before: { address: 1, network: 3, form: 100, unproven: 90 } })).toBeNull()
})

test('each sign of a program has its reason', () => {
  expect(doubt({ trapped: true })).toBe('trap')
  for (const drawnFor of [null, -1, DRAWN_FOR + 1]) expect(doubt({ drawnFor })).toBe('token')
  expect(doubt({ drawnFor: 400 })).toBe('fast')
  expect(doubt({ suppressed: true })).toBe('suppressed')
  expect(doubt({ before: { ...usual.before, address: MOST.address } })).toBe('address')
  expect(doubt({ before: { ...usual.before, network: MOST.network } })).toBe('network')
  expect(doubt({ before: { ...usual.before, form: MOST.form } })).toBe('form')
  const unproven = { ...usual.before, unproven: MOST.unproven }
  expect(doubt({ worked: false, before: unproven })).toBe('unproven')
  expect(doubt({ worked: false })).toBeNull()
})

test('nothing is confirmed but what is pending, and nothing pending comes back from what is over', () => {
  const states = Object.keys(sendingStates) as SendingState[]
  expect(states.filter((state) => sendingAfter(state, 'confirm'))).toEqual(['pending'])
  expect(states.filter((state) => sendingAfter(state, 'let-through'))).toEqual(['for-a-look'])
  for (const over of ['confirmed', 'lapsed', 'already', 'dropped', 'kept-away'] as const)
    for (const event of ['confirm', 'lapse', 'doubt', 'let-through', 'drop'] as const)
      expect(sendingAfter(over, event)).toBeNull()
})
