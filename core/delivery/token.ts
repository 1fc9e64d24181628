import { hash, timingSafeEqual } from 'node:crypto'

/**
 * What a token is for: an open, a click, leaving the list, the reader's own page, a bounce's return path, a message's id; the
 * calendar, which names nobody; a form as it was drawn, or as it stands at a desk, which names the form and the time; a promised file, which names it
 * and the sending that asked for it. A token of one kind does not verify as another.
 */
export type TokenKind =
  | 'open'
  | 'click'
  | 'leave'
  | 'reader'
  | 'bounce'
  | 'message'
  | 'calendar'
  | 'form'
  | 'file'
  | 'desk'

/** 128 bits. */
const MAC_BYTES = 16
/** Before, tokens had 80 bits; those in mail that has gone out stay valid. */
const SHORT_MAC_BYTES = 10
const alphabet = 'abcdefghijklmnopqrstuvwxyz234567'

/** Whom a token names: the recipient of a mailing, in which of their rounds in its sequence (0: the first, or of none). */
export interface Addressed {
  mailingId: number
  personId: number
  round: number
}

/** A recipient of a mailing, by the names of this file. */
export const addressed = (mailingId: number, personId: number, round = 0): Addressed => ({
  mailingId,
  personId,
  round,
})

/**
 * A token that names one recipient of one mailing, for public links and return paths:
 * the numbers (the round where it is not 0) and an HMAC-SHA256 over kind and numbers cut to 128 bits, in lower-case base32
 * (RFC 4648), which also survives mail servers that change the case of a local part.
 */
export function makeToken(
  key: Buffer,
  kind: TokenKind,
  mailingId: number,
  personId: number,
  round = 0,
): string {
  const numbers = round === 0 ? [mailingId, personId] : [mailingId, personId, round]
  const payload = Buffer.concat(numbers.map(varint))
  return base32(Buffer.concat([payload, mac(key, kind, payload).subarray(0, MAC_BYTES)]))
}

/** What tokens are verified by. */
export interface TokenKey {
  key: Buffer
  /** The last mailing whose tokens may be of the shorter kind; -1: none. */
  shortUpTo: number
}

/** The recipient a token names, or null where it is not one that was made with this key for this kind. */
export function readToken(
  { key, shortUpTo }: TokenKey,
  kind: TokenKind,
  token: string,
): Addressed | null {
  const bytes = fromBase32(token)
  if (!bytes) return null
  const of = verified(bytes, MAC_BYTES, key, kind)
  if (of) return of
  const short = verified(bytes, SHORT_MAC_BYTES, key, kind)
  return short && short.mailingId <= shortUpTo ? short : null
}

function verified(bytes: Buffer, macBytes: number, key: Buffer, kind: TokenKind): Addressed | null {
  if (bytes.length <= macBytes) return null
  const payload = bytes.subarray(0, -macBytes)
  if (!timingSafeEqual(bytes.subarray(-macBytes), mac(key, kind, payload).subarray(0, macBytes)))
    return null
  const mailing = readVarint(payload, 0)
  const person = mailing && readVarint(payload, mailing.next)
  if (!mailing || !person) return null
  if (person.next === payload.length) return addressed(mailing.value, person.value)
  const round = readVarint(payload, person.next)
  return round?.next === payload.length ? addressed(mailing.value, person.value, round.value) : null
}

/**
 * HMAC-SHA256 (RFC 2104), put together from two hashes: each message has five tokens, each open one, and an object made
 * for a stream costs more than both.
 */
function mac(key: Buffer, kind: TokenKind, payload: Buffer): Buffer {
  const { inner, outer } = padsOf(key)
  const within = hash('sha256', Buffer.concat([inner, kinds[kind], payload]), 'buffer')
  return hash('sha256', Buffer.concat([outer, within]), 'buffer')
}

const kinds = {
  open: Buffer.from('open\0'),
  click: Buffer.from('click\0'),
  leave: Buffer.from('leave\0'),
  reader: Buffer.from('reader\0'),
  bounce: Buffer.from('bounce\0'),
  message: Buffer.from('message\0'),
  calendar: Buffer.from('calendar\0'),
  form: Buffer.from('form\0'),
  file: Buffer.from('file\0'),
  desk: Buffer.from('desk\0'),
} satisfies Record<TokenKind, Buffer>

/** Bytes that SHA-256 takes at a time. */
const HASH_BLOCK = 64

/** A key is prepared once, not for each token. */
const prepared = new WeakMap<Buffer, { inner: Buffer; outer: Buffer }>()
function padsOf(key: Buffer) {
  let pads = prepared.get(key)
  if (!pads) {
    const short = key.length > HASH_BLOCK ? hash('sha256', key, 'buffer') : key
    const pad = (byte: number) =>
      Buffer.from(Array.from({ length: HASH_BLOCK }, (_, i) => (short[i] ?? 0) ^ byte))
    prepared.set(key, (pads = { inner: pad(0x36), outer: pad(0x5c) }))
  }
  return pads
}

function varint(value: number): Buffer {
  const bytes: number[] = []
  let rest = value
  while (rest >= 128) {
    bytes.push((rest % 128) | 128)
    rest = Math.floor(rest / 128)
  }
  bytes.push(rest)
  return Buffer.from(bytes)
}

function readVarint(bytes: Buffer, from: number): { value: number; next: number } | null {
  let value = 0
  let factor = 1
  for (let i = from; i < bytes.length && i < from + 8; i++) {
    value += (bytes[i]! & 127) * factor
    if (bytes[i]! < 128) return { value, next: i + 1 }
    factor *= 128
  }
  return null
}

function base32(bytes: Buffer): string {
  let text = ''
  let bits = 0
  let held = 0
  for (const byte of bytes) {
    held = (held << 8) | byte
    bits += 8
    while (bits >= 5) {
      bits -= 5
      text += alphabet[(held >> bits) & 31]
    }
    held &= 31
  }
  return bits > 0 ? text + alphabet[(held << (5 - bits)) & 31] : text
}

function fromBase32(text: string): Buffer | null {
  if (text.length > 64) return null
  const bytes = Buffer.allocUnsafe(Math.floor((text.length * 5) / 8))
  let bits = 0
  let held = 0
  let next = 0
  for (let i = 0; i < text.length; i++) {
    const value = valueOf[text.charCodeAt(i)]
    if (value === undefined || value < 0) return null
    held = (held << 5) | value
    bits += 5
    if (bits >= 8) {
      bits -= 8
      bytes[next++] = (held >> bits) & 255
    }
    held &= 255
  }
  // One spelling a token: leftover bits must be zero and fewer than a letter's, or two texts would verify as one.
  return next > 0 && bits < 5 && (held & ((1 << bits) - 1)) === 0 ? bytes : null
}

/** The value of each letter of the alphabet by its code; -1 for every other character. */
const valueOf = Int8Array.from({ length: 128 }, (_, code) =>
  alphabet.indexOf(String.fromCharCode(code)),
)
