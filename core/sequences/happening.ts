import { conditionsOf, readRule, type Rule } from '../segments'

/**
 * Something that may hold for somebody inside: that they did it since they came in, or that they fit a rule now. Forks and
 * goals ask it.
 */
export type Happening =
  | { is: 'ordered' }
  /** Did an event of this name. */
  | { is: 'did'; event: string }
  /** Opened, or clicked in, a mail of the sequence, by its step; null: any of them. */
  | { is: 'opened' | 'clicked'; mail: string | null }
  /** Fits a rule of the segment language, as things are at that moment. */
  | { is: 'fits'; rule: Rule }

export const happenings = {
  ordered: 'ordered',
  did: 'did an event',
  opened: 'opened a mail',
  clicked: 'clicked in a mail',
  fits: 'is in a segment',
} as const satisfies Record<Happening['is'], string>

/** Reads one from JSON that came from outside; null where it is none. */
export function readHappening(json: unknown): Happening | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, event, mail, rule } = json as Record<string, unknown>
  switch (is) {
    case 'ordered':
      return { is }
    case 'did':
      return typeof event === 'string' && event.length <= 100 ? { is, event } : null
    case 'opened':
    case 'clicked':
      return mail == null || isStepId(mail) ? { is, mail: (mail as string) ?? null } : null
    case 'fits': {
      const read = readRule(rule)
      return read && { is, rule: read }
    }
    default:
      return null
  }
}

/** What a happening lacks to be asked, as the end of a sentence: "a fork asks for …"; null where it lacks nothing. */
export function whatItLacks(what: Happening, isMail: (step: string) => boolean): string | null {
  switch (what.is) {
    case 'did':
      return what.event.trim() === '' ? 'an event and does not say which' : null
    case 'opened':
    case 'clicked':
      return what.mail !== null && !isMail(what.mail) ? 'a mail that is not in it any more' : null
    case 'fits':
      return conditionsOf(what.rule).length === 0 ? 'a segment and does not say which' : null
    case 'ordered':
      return null
  }
}

/** Names of steps: made by us, and read back from outside. */
export function isStepId(value: unknown): value is string {
  return typeof value === 'string' && /^[a-z0-9-]{1,40}$/.test(value)
}
