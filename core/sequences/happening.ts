import { conditionsOf, readCarried, readRule, type Carried, type Rule } from '../segments'

/**
 * Something that may hold for somebody inside: that they did it since they came in, or that they fit a rule now. Forks and
 * goals ask it.
 */
export type Happening =
  | { is: 'ordered' }
  /** Did an event of this name; `where`: that carried what is asked. */
  | { is: 'did'; event: string; where?: Carried }
  /** Opened a mail of the sequence, by its step; null: any of them. */
  | { is: 'opened'; mail: string | null }
  /** Clicked in one; `link`: on a link to this address. */
  | { is: 'clicked'; mail: string | null; link?: string }
  /**
   * A step has handed them over to another program, which has taken them or refused; `where`: its answer said what is asked.
   * Of several hand-overs of a step one is enough.
   */
  | { is: 'answered'; step: string; taken: boolean; where?: Carried }
  /** Fits a rule of the segment language, as things are at that moment. */
  | { is: 'fits'; rule: Rule }

export const happenings = {
  ordered: 'ordered',
  did: 'did an event',
  opened: 'opened a mail',
  clicked: 'clicked in a mail',
  answered: 'another program answered',
  fits: 'is in a segment',
} as const satisfies Record<Happening['is'], string>

/** Reads one from JSON that came from outside; null where it is none. */
export function readHappening(json: unknown): Happening | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, event, mail, rule, where, link, step, taken } = json as Record<string, unknown>
  switch (is) {
    case 'ordered':
      return { is }
    case 'did': {
      const carried = where == null ? null : readCarried(where)
      if (typeof event !== 'string' || event.length > 100 || (where != null && !carried))
        return null
      return { is, event, ...(carried && { where: carried }) }
    }
    case 'opened':
      return mail == null || isStepId(mail) ? { is, mail: (mail as string) ?? null } : null
    case 'clicked': {
      if (mail != null && !isStepId(mail)) return null
      if (link != null && (typeof link !== 'string' || link.length > LONGEST_LINK)) return null
      return { is, mail: mail ?? null, ...(link ? { link } : {}) }
    }
    case 'answered': {
      const said = where == null ? null : readCarried(where)
      if (!isStepId(step) || typeof taken !== 'boolean' || (where != null && !said)) return null
      return { is, step, taken, ...(said && { where: said }) }
    }
    case 'fits': {
      const read = readRule(rule)
      return read && { is, rule: read }
    }
    default:
      return null
  }
}

const LONGEST_LINK = 2_000

/** Names what an event is asked for: the same event with another thing asked of what it carried is another. */
export const deedOf = ({ event, where }: Extract<Happening, { is: 'did' }>): string =>
  where ? `${event} ${JSON.stringify(where)}` : event

/** What of the other steps of a map a step must know to say what it lacks. */
export interface Around {
  isMail: (step: string) => boolean
  handsOver: (step: string) => boolean
  /** Whether a step stands before another, as it is on the map. */
  leadsTo: (id: string, step: object) => boolean
}

/** What a happening lacks to be asked, as the end of a sentence: "a fork asks for …"; null where it lacks nothing. */
export function whatItLacks(what: Happening, { isMail, handsOver }: Around): string | null {
  switch (what.is) {
    case 'did':
      return what.event.trim() === '' ? 'an event and does not say which' : null
    case 'opened':
    case 'clicked':
      return what.mail !== null && !isMail(what.mail) ? 'a mail that is not in it any more' : null
    case 'answered':
      return handsOver(what.step) ? null : 'the answer to a hand-over that is not in it'
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
