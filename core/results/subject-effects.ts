import { Z95 } from '../counting'
/** A mailing that went out: its subject, and what share of the delivered opened it (0..1). */
export interface SentSubject {
  subject: string
  opened: number
}

/** Something about a subject that may matter. */
export const subjectTraits = [
  { key: 'number', name: 'a number', has: (subject: string) => /\d/.test(withoutFillIns(subject)) },
  { key: 'question', name: 'a question', has: (subject: string) => subject.includes('?') },
  {
    key: 'emoji',
    name: 'an emoji',
    has: (subject: string) => /\p{Extended_Pictographic}/u.test(subject),
  },
  {
    key: 'fill-in',
    name: 'something of the reader’s',
    has: (subject: string) => /\{\{[^{}]*\}\}/.test(subject),
  },
  {
    key: 'short',
    name: 'at most 30 characters',
    has: (subject: string) => subjectLength(subject) <= 30,
  },
] as const
export type SubjectTrait = (typeof subjectTraits)[number]['key']

/** The difference that a trait goes with, in shares of the delivered, with its 95% interval. */
export interface SubjectEffect {
  trait: SubjectTrait
  name: string
  /** Mailings with the trait, and without. */
  withIt: number
  without: number
  effect: number
  low: number
  high: number
}

/** Fewer mailings than this on either side say nothing. */
export const ENOUGH = 8

/**
 * By how much mailings with a trait in their subject were opened more than those without: the difference of the
 * means over mailings, each counting once, with Welch's interval (B. L. Welch, 1947). Silent about traits that too
 * few mailings have, or lack. It says what went together, not what caused it.
 */
export function subjectEffects(sent: readonly SentSubject[]): SubjectEffect[] {
  return subjectTraits.flatMap(({ key, name, has }) => {
    const [withIt, without] = [
      sent.filter(({ subject }) => has(subject)),
      sent.filter(({ subject }) => !has(subject)),
    ].map((some) => some.map(({ opened }) => opened)) as [number[], number[]]
    if (withIt.length < ENOUGH || without.length < ENOUGH) return []
    const [a, b] = [momentsOf(withIt), momentsOf(without)]
    const effect = a.mean - b.mean
    const variance = a.ofMean + b.ofMean
    // By shares of the variance: the square of a tiny variance would be nothing, and divided by itself no number.
    const freedom =
      variance === 0
        ? 1
        : 1 /
          ((a.ofMean / variance) ** 2 / (withIt.length - 1) +
            (b.ofMean / variance) ** 2 / (without.length - 1))
    const spread = variance === 0 ? 0 : studentQuantile(freedom) * Math.sqrt(variance)
    return [
      {
        trait: key,
        name,
        withIt: withIt.length,
        without: without.length,
        effect,
        low: effect - spread,
        high: effect + spread,
      },
    ]
  })
}

/** Letters as a reader counts them; a fill-in is taken to be as long as a first name. */
export function subjectLength(subject: string): number {
  const segments = new Intl.Segmenter('en', { granularity: 'grapheme' })
  return [...segments.segment(subject.replace(/\{\{[^{}]*\}\}/g, 'Tamsin'))].length
}

/** The two-sided 95% quantile of Student's distribution (Abramowitz and Stegun, 26.7.5); good from 4 degrees on. */
export function studentQuantile(freedom: number): number {
  const z = Z95
  const n = Math.max(1, freedom)
  return (
    z +
    (z ** 3 + z) / (4 * n) +
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * n ** 2) +
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * n ** 3)
  )
}

function momentsOf(numbers: readonly number[]) {
  const n = numbers.length
  const mean = numbers.reduce((sum, one) => sum + one, 0) / n
  const squares = numbers.reduce((sum, one) => sum + (one - mean) ** 2, 0)
  return { mean, ofMean: squares / (n - 1) / n }
}

function withoutFillIns(subject: string): string {
  return subject.replace(/\{\{[^{}]*\}\}/g, '')
}
