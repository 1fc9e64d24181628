import { accountsSender, readOwnSender, type OwnSender } from '../senders'
import { usualLimits, type Limits } from './limits'

/** How a mailing goes out: at what pace, who is held out, what is tried, and what it is for. */
export interface DispatchPlan {
  pace: Pace
  /** Messages a minute; null: the account's own pace. */
  perMinute: number | null
  /** Messages a minute to single providers, by the domain of the address. */
  providers: ProviderPace[]
  /** The field in which people's time zones stand, and the time on their own clocks; only where the pace is `local-time`. */
  zoneField: string | null
  localAt: string | null
  /** How long each tier is watched before the next follows, minutes; only where the pace is `widening`. */
  watchMinutes: number
  /** Shares of those tried above which no further tier follows; only where the pace is `widening`. */
  limits: Limits
  /** Share of the audience that is not mailed, to see what being mailed was worth; 0 to 0.5. */
  holdout: number
  test: TestPlan | null
  goal: Goal | null
  /** Whom it comes from, where that is not the account's sender. */
  sender: OwnSender
}

/** At most so many messages a minute to addresses of a domain. */
export interface ProviderPace {
  domain: string
  perMinute: number
}

/**
 * All at once; each at the hour at which they read most; all at the same time on their own clocks; or the keenest first
 * and the others after them.
 */
export type Pace = 'at-once' | 'best-hour' | 'local-time' | 'widening'

/** Some people get one of the variants; the rest gets the one that did best. */
export interface TestPlan {
  of: 'subject' | 'sender' | 'letter' | 'hour'
  /** Two to five; the first is the mailing as it stands. */
  variants: Variant[]
  /** Share of the audience that is in the test; 1: everybody. */
  share: number
  measure: Measure
  /** So many hours after the test began it is decided. */
  hours: number
  decides: 'itself' | 'hand'
}
export type Measure = 'open' | 'click' | 'goal' | 'money'

/** What differs from the mailing as it stands; null or empty: nothing. */
export interface Variant {
  subject: string
  previewText: string
  senderName: string
  /** Another draft whose letter is tried. */
  mailingId: number | null
  /** Hour of the day in the account's zone. */
  hour: number | null
}

/** What the mailing is for: something done within so many days after it came. */
export interface Goal {
  is: 'order' | 'event' | 'link' | 'enters' | 'leaves'
  /** The event's name, the link's address, or the number of the segment that is come into or left. */
  what: string
  days: number
}

export const MOST_VARIANTS = 5
export const noVariant: Variant = {
  subject: '',
  previewText: '',
  senderName: '',
  mailingId: null,
  hour: null,
}
export const plainPlan: DispatchPlan = {
  pace: 'at-once',
  perMinute: null,
  providers: [],
  zoneField: null,
  localAt: null,
  watchMinutes: 60,
  limits: usualLimits,
  holdout: 0,
  test: null,
  goal: null,
  sender: accountsSender,
}

type Json = Record<string, unknown>

/** A plan from outside with nothing in it but what a plan may hold; what is missing or wrong is as in {@link plainPlan}. */
export function readPlan(json: unknown): DispatchPlan {
  if (!isObject(json)) return plainPlan
  return {
    pace: oneOf(json.pace, ['at-once', 'best-hour', 'local-time', 'widening'], 'at-once'),
    perMinute: typeof json.perMinute === 'number' ? whole(json.perMinute, 1, 1_000_000, 1) : null,
    providers: readProviders(json.providers),
    zoneField: isKey(json.zoneField) ? json.zoneField : null,
    localAt: isLocalTime(json.localAt) ? json.localAt : null,
    watchMinutes: whole(json.watchMinutes, 1, 7 * 24 * 60, 60),
    limits: readLimits(json.limits),
    holdout: between(json.holdout, 0, 0.5, 0),
    test: isObject(json.test) ? readTest(json.test) : null,
    goal: isObject(json.goal) ? readGoal(json.goal) : null,
    sender: readOwnSender(json.sender),
  }
}

/** As many providers as one may want to spare. */
const MOST_PROVIDERS = 30

function readProviders(json: unknown): ProviderPace[] {
  const given = Array.isArray(json) ? json.filter(isObject) : []
  const paces = given.flatMap(({ domain, perMinute }) => {
    const name = text(domain, 253).trim().toLowerCase()
    return /^[^\s@]+\.[^\s@]+$/.test(name) && typeof perMinute === 'number'
      ? [{ domain: name, perMinute: whole(perMinute, 1, 1_000_000, 1) }]
      : []
  })
  return [...new Map(paces.map((one) => [one.domain, one])).values()].slice(0, MOST_PROVIDERS)
}

function readLimits(json: unknown): Limits {
  const given = isObject(json) ? json : {}
  const { bounced, complained, deferred } = usualLimits
  return {
    bounced: between(given.bounced, 0.001, 0.5, bounced),
    complained: between(given.complained, 0.0001, 0.1, complained),
    deferred: between(given.deferred, 0.01, 0.9, deferred),
  }
}

function isKey(value: unknown): value is string {
  return typeof value === 'string' && /^[a-z_][a-z0-9_]{0,60}$/.test(value)
}
function isLocalTime(value: unknown): value is string {
  return typeof value === 'string' && /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(value)
}

function readTest(json: Json): TestPlan {
  const given = Array.isArray(json.variants) ? json.variants.filter(isObject) : []
  const variants = given.slice(0, MOST_VARIANTS).map((one): Variant => ({
    subject: text(one.subject, 500),
    previewText: text(one.previewText, 500),
    senderName: text(one.senderName, 120),
    mailingId: typeof one.mailingId === 'number' ? whole(one.mailingId, 1, 2 ** 50, 1) : null,
    hour: typeof one.hour === 'number' ? whole(one.hour, 0, 23, 9) : null,
  }))
  while (variants.length < 2) variants.push(noVariant)
  return {
    of: oneOf(json.of, ['subject', 'sender', 'letter', 'hour'], 'subject'),
    variants,
    share: between(json.share, 0.01, 1, 0.3),
    measure: oneOf(json.measure, ['open', 'click', 'goal', 'money'], 'open'),
    hours: between(json.hours, 0.25, 14 * 24, 4),
    decides: oneOf(json.decides, ['itself', 'hand'], 'itself'),
  }
}

function readGoal(json: Json): Goal {
  return {
    is: oneOf(json.is, ['order', 'event', 'link', 'enters', 'leaves'], 'order'),
    what: text(json.what, 2_000),
    days: whole(json.days, 1, 365, 5),
  }
}

/** What has to be set before the plan can be carried out, in sentences. */
export function planProblems({ test, goal, pace, zoneField }: DispatchPlan): string[] {
  const problems: string[] = []
  if (pace === 'local-time' && zoneField === null)
    problems.push('Say in which field people’s time zones stand.')
  if (test && pace === 'local-time' && (test.share < 1 || test.of === 'hour'))
    problems.push(
      test.of === 'hour'
        ? 'Hours are tried on the account’s clock, and it is to be the same time on each reader’s. Choose one of the two.'
        : 'The rest could only follow when the time on the readers’ clocks is over. Test on everybody, or choose another order.',
    )
  if (test) problems.push(...testProblems(test))
  if (goal?.is === 'event' && !goal.what) problems.push('Say which event the goal is.')
  if ((goal?.is === 'enters' || goal?.is === 'leaves') && !/^[1-9]\d*$/.test(goal.what))
    problems.push('Say which segment the goal is about.')
  if (goal?.is === 'link' && !/^https?:\/\//.test(goal.what))
    problems.push('Give the address of the link that is the goal.')
  if (test?.measure === 'goal' && !goal)
    problems.push('The test is decided by the goal, and the mailing has none. Set one.')
  return problems
}

function testProblems({ of, variants }: TestPlan): string[] {
  const others = variants.slice(1)
  const names = (missing: (variant: Variant) => boolean) =>
    others.flatMap((variant, i) => (missing(variant) ? [variantName(i + 1)] : [])).join(', ')
  const missing = {
    subject: names(({ subject }) => !subject.trim()),
    sender: names(({ senderName }) => !senderName.trim()),
    letter: names(({ mailingId }) => mailingId === null),
    hour: variants.flatMap(({ hour }, i) => (hour === null ? [variantName(i)] : [])).join(', '),
  }[of]
  if (missing) return [`Variant ${missing} has no ${of === 'sender' ? 'sender’s name' : of} yet.`]
  const differing = variants.map((variant) =>
    JSON.stringify(
      {
        subject: variant.subject.trim(),
        sender: variant.senderName.trim(),
        letter: variant.mailingId,
        hour: variant.hour,
      }[of],
    ),
  )
  return new Set(differing).size < differing.length ? ['Two variants are the same.'] : []
}

/** A, B, C … */
export function variantName(n: number): string {
  return String.fromCharCode(65 + n)
}

function isObject(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
function oneOf<T extends string>(value: unknown, all: readonly T[], usual: T): T {
  return all.find((one) => one === value) ?? usual
}
function between(value: unknown, low: number, high: number, usual: number): number {
  return typeof value === 'number' && Number.isFinite(value)
    ? Math.min(high, Math.max(low, value))
    : usual
}
function whole(value: unknown, low: number, high: number, usual: number): number {
  return Math.round(between(value, low, high, usual))
}
function text(value: unknown, most: number): string {
  return typeof value === 'string' ? value.replace(/[\r\n\0]+/g, ' ').slice(0, most) : ''
}
