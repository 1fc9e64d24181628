import { createHmac } from 'node:crypto'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { makeToken, readToken, type TokenKind } from './token'

const kind = fc.constantFrom<TokenKind>('open', 'click', 'leave', 'bounce', 'message', 'calendar')
const number = fc.integer({ min: 0, max: 2 ** 40 })
const alphabet = 'abcdefghijklmnopqrstuvwxyz234567'

/** The bytes that base32 (RFC 4648) without padding stands for. */
function decoded(text: string): Buffer {
  const bits = [...text].map((c) => alphabet.indexOf(c).toString(2).padStart(5, '0')).join('')
  return Buffer.from(bits.match(/.{8}/g)!.map((byte) => Number.parseInt(byte, 2)))
}

test('a token carries the HMAC-SHA256 of its kind and numbers, whatever the key', () => {
  fc.assert(
    fc.property(
      fc.uint8Array({ minLength: 1, maxLength: 100 }),
      kind,
      number,
      number,
      (bytes, of, mailing, person) => {
        const key = Buffer.from(bytes)
        const whole = decoded(makeToken(key, of, mailing, person))
        const [payload, mac] = [whole.subarray(0, -16), whole.subarray(-16)]
        const expected = createHmac('sha256', key).update(`${of}\0`).update(payload).digest()
        expect(mac.equals(expected.subarray(0, 16))).toBe(true)
      },
    ),
  )
})

test('the first round’s tokens are those of before there were rounds', () => {
  const key = Buffer.alloc(32, 7)
  expect(makeToken(key, 'click', 47, 1_234, 0)).toBe(makeToken(key, 'click', 47, 1_234))
  expect(decoded(makeToken(key, 'click', 1, 2)).subarray(0, -16)).toEqual(Buffer.from([1, 2]))
})

test('a token is read by its own key and for its own kind, and not otherwise', () => {
  fc.assert(
    fc.property(
      kind,
      kind,
      number,
      number,
      fc.nat(300),
      (of, other, mailingId, personId, round) => {
        const key = Buffer.alloc(32, 7)
        const token = makeToken(key, of, mailingId, personId, round)
        const read = (as: TokenKind, by = key) => readToken({ key: by, shortUpTo: -1 }, as, token)
        expect(read(of)).toEqual({ mailingId, personId, round })
        if (other !== of) expect(read(other)).toBeNull()
        expect(read(of, Buffer.alloc(32, 8))).toBeNull()
      },
    ),
  )
})
