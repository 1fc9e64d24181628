import fc from 'fast-check'
import { expect, test } from 'vitest'
import { accountsSender, localProblem, readOwnSender, repliesProblem, senderWith } from './sender'

const usual = {
  name: 'Galewright Kites',
  address: 'hello@galewright.example',
  replies: 'sender',
} as const

test('what is empty is as the account has it', () => {
  expect(senderWith(usual, accountsSender)).toEqual(usual)
  expect(senderWith(usual, { name: 'Wren', local: 'wren', replies: 'kept' })).toEqual({
    name: 'Wren',
    address: 'wren@galewright.example',
    replies: 'kept',
  })
})

test('whatever comes from outside, the domain stays the account’s and no header can be made of it', () => {
  fc.assert(
    fc.property(
      fc.record({ name: fc.string(), local: fc.string(), replies: fc.string() }),
      (given) => {
        const { name, address, replies } = senderWith(usual, readOwnSender(given))
        expect(address.endsWith('@galewright.example')).toBe(true)
        expect(address.indexOf('@')).toBe(address.lastIndexOf('@'))
        expect(`${name}${address}${replies}`).not.toMatch(/[\r\n\0]/)
        expect(
          replies === 'kept' || replies === 'sender' || /^[^\s@]+@[^\s@]+$/.test(replies),
        ).toBe(true)
      },
    ),
  )
  expect(readOwnSender(null)).toEqual(accountsSender)
})

test.each([
  ['', true],
  ['wren', true],
  ['wren.notes+kites', true],
  ['wren notes', false],
  ['wren@elsewhere.example', false],
  ['.wren', false],
  ['b-token', false],
  ['leave-me', false],
  ['x'.repeat(65), false],
])('%s before the @: %s', (local, fine) => {
  expect(localProblem(local) === null).toBe(fine)
})

test.each([
  ['kept', true],
  ['sender', true],
  ['', true],
  ['desk@galewright.example', true],
  ['desk', false],
  ['a@b', false],
  ['a@b.example, c@d.example', false],
])('replies to %s: %s', (replies, fine) => {
  expect(repliesProblem(replies) === null).toBe(fine)
})
