import type { Names } from '../names'
import { isWhole } from '../values/comparison'
import { fold } from '../values/fold'
import { parseTimes } from '../values/parse'
import { notOnce, type Times } from '../values/times'
import type { TokenReader } from '../values/token-reader'
import { named } from '../values/write'

/**
 * Any mailing; any that went out by itself, or by a sequence; one mailing (or one link of it); those of one sequence; or
 * the last `n` that the person was sent.
 */
export type WhichMail =
  | { which: 'any' | 'apart' | 'in-sequences' }
  | { which: 'mailing'; id: number; link: number | null }
  | { which: 'sequence'; id: number }
  | { which: 'last'; n: number }

/** Reads it from JSON that came from outside; null where it is none. */
export function readWhich(json: unknown): WhichMail | null {
  if (typeof json !== 'object' || json === null) return null
  const of = json as Record<string, unknown>
  switch (of.which) {
    case 'any':
    case 'apart':
    case 'in-sequences':
      return { which: of.which }
    case 'last':
      return isWhole(of.n, 1, 1_000) ? { which: 'last', n: of.n } : null
    case 'sequence':
      return isWhole(of.id, 1) ? { which: 'sequence', id: of.id } : null
    case 'mailing': {
      const link = of.link ?? null
      return isWhole(of.id, 1) && (link === null || isWhole(link, 0))
        ? { which: 'mailing', id: of.id, link }
        : null
    }
    default:
      return null
  }
}

/** "all of the last 5 mailings", "none of …", "at least 2 of …"; null where something else is said. */
export function parseOfLast(
  r: TokenReader,
): { of: { which: 'last'; n: number }; times: Times } | null {
  const start = r.next
  const share = r.is('all') || r.is('none') ? fold(r.token.text) : null
  const times = share === null ? parseTimes(r, 'of') : null
  if (share !== null) r.next++
  if (!r.take('of')) {
    r.next = start
    return null
  }
  r.expect('the')
  r.expect('last')
  const n = parseLastCount(r)
  return {
    of: { which: 'last', n },
    times: times ?? (share === 'all' ? { is: 'at-least', n } : notOnce),
  }
}

/** "5 mailings", or "mailing" alone, behind "the last". */
function parseLastCount(r: TokenReader): number {
  if (r.take('mailing')) return 1
  const n = r.count(1, 1_000)
  r.expect('mailings')
  return n
}

/** "any mailing", "the last 5 mailings", "link 2 of mailing “…”". */
export function parseWhich(r: TokenReader, { mailings, sequences }: Names): WhichMail {
  if (r.take('any')) {
    r.expect('mailing')
    if (r.take('outside')) {
      r.expect('sequences')
      return { which: 'apart' }
    }
    if (!r.take('of')) return { which: 'any' }
    if (r.take('any')) {
      r.expect('sequence')
      return { which: 'in-sequences' }
    }
    r.expect('sequence')
    return { which: 'sequence', id: r.named(sequences, 'sequence') }
  }
  if (r.take('the')) {
    r.expect('last')
    return { which: 'last', n: parseLastCount(r) }
  }
  let link: number | null = null
  if (r.take('link')) {
    link = r.count(0, 100_000)
    r.expect('of')
  }
  r.expect('mailing')
  return { which: 'mailing', id: r.named(mailings, 'mailing'), link }
}

/** The same as {@link parseWhich} reads it. */
export function writeWhich(of: Exclude<WhichMail, { which: 'last' }>, names: Names): string {
  switch (of.which) {
    case 'any':
      return 'any mailing'
    case 'apart':
      return 'any mailing outside sequences'
    case 'in-sequences':
      return 'any mailing of any sequence'
    case 'sequence':
      return `any mailing of sequence ${named(of.id, names.sequences)}`
    case 'mailing': {
      const link = of.link === null ? '' : `link ${of.link} of `
      return `${link}mailing ${named(of.id, names.mailings)}`
    }
  }
}

/** How many of the last mailings: "at least 2 of the last 5 mailings", "all of …", "none of …". */
export function writeOfLast({ is, n }: Times, of: number): string {
  const mailings = of === 1 ? 'the last mailing' : `the last ${of} mailings`
  if (is === 'at-least' && n === of) return `all of ${mailings}`
  if (is === 'at-most' && n === 0) return `none of ${mailings}`
  return `${is.replace('-', ' ')} ${n} of ${mailings}`
}
