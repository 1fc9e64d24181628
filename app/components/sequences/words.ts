import type { Rule } from '~~/core/segments'
import {
  actNames,
  BACK,
  happenings,
  JOINED,
  mailingsOfStep,
  startKinds,
  waysOf,
  type Act,
  type Again,
  type DateStart,
  type GoalStep,
  type Happening,
  type MailStep,
  type MomentStart,
  type OpenHours,
  type Starting,
  type Step,
  type WaitStep,
  type WayBack,
} from '~~/core/sequences'
import type { OpenSequence } from '~/stores/sequence'
import { writeComparison, type Carried } from '~~/core/segments'
import { dayText } from '~~/core/time'
import { repeatWords } from './repeats'
import { waitWords } from './waits'

export type Of = Pick<
  OpenSequence,
  'mailings' | 'segments' | 'fields' | 'map' | 'others' | 'lists' | 'links' | 'rules'
>
type OfStart = Pick<
  OpenSequence,
  'listId' | 'lists' | 'segments' | 'fields' | 'signUps' | 'tags' | 'otherMailings'
>

/** What an event carried: "sum over 100". */
export const carriedWords = ({ property, test }: Carried): string =>
  `${property} ${writeComparison(test)}`

/** The words of a link, or where it leads. */
const linkWords = (url: string, { links }: Pick<Of, 'links'>): string =>
  `“${links.find((one) => one.url === url)?.words.trim() || url}”`

/** The mail of a step: its first version, and how many are tried. */
export const mailStepWords = (step: MailStep, of: Pick<Of, 'mailings'>): string => {
  const many = mailingsOfStep(step).length
  const first = mailWords(step.mailingId, of)
  return many > 1 ? `${first} (${many} versions)` : first
}

export const mailWords = (id: number, { mailings }: Pick<Of, 'mailings'>): string => {
  const mail = mailings.find((one) => one.id === id)
  return mail?.subject.trim() || mail?.name || 'gone'
}

/** What a happening says of somebody: "clicked in “Hello”". */
export function happeningWords(what: Happening, of: Of): string {
  switch (what.is) {
    case 'ordered':
      return happenings.ordered
    case 'did':
      return what.event
        ? `did “${what.event}”${what.where ? ` with ${carriedWords(what.where)}` : ''}`
        : happenings.did
    case 'opened':
    case 'clicked': {
      const step = what.mail === null ? undefined : of.map.steps[what.mail]
      const which =
        what.mail === null
          ? 'any mail'
          : step?.kind === 'mail'
            ? `“${mailStepWords(step, of)}”`
            : 'a mail that is gone'
      if (what.is === 'opened') return `opened ${which}`
      return what.link ? `clicked ${linkWords(what.link, of)}` : `clicked in ${which}`
    }
    case 'answered': {
      const said = what.taken ? 'took them' : 'refused them'
      return `another program ${said}${what.where ? `, with ${carriedWords(what.where)}` : ''}`
    }
    case 'fits': {
      const text =
        what.rule.kind === 'any' && !what.rule.of.length ? null : otherRule(what.rule, of)
      if (text !== null) return text
      const ids = segmentsOf(what)
      const names = ids.map(
        (id) => of.segments.find((one) => one.id === id)?.name ?? 'a segment that is gone',
      )
      return names.length ? `is in ${names.join(' or ')}` : happenings.fits
    }
  }
}

/** What lets somebody in: "leaves “basket” behind". */
export function startingWords(start: Starting, of: OfStart): string {
  const named = (rows: { id: number; name: string }[], id: number) =>
    rows.find((one) => one.id === id)?.name ?? 'gone'
  switch (start.is) {
    case 'joined': {
      const list = of.lists.find(({ id }) => id === of.listId)?.name ?? 'a list'
      return start.signUpId === null
        ? `joins ${list}`
        : `joins ${list} by “${named(of.signUps, start.signUpId)}”`
    }
    case 'event':
      return start.name
        ? `does “${start.name}”${start.where ? ` with ${carriedWords(start.where)}` : ''}`
        : startKinds.event.name
    case 'ordered':
      return start.first ? 'orders for the first time' : 'orders'
    case 'left behind':
      return start.name ? `leaves “${start.name}” behind` : startKinds['left behind'].name
    case 'segment':
      if (start.segmentId === 0) return startKinds.segment.name
      return `${start.comes ? 'comes into' : 'leaves'} ${named(of.segments, start.segmentId)}`
    case 'date':
      return dateWords(start, of)
    case 'tag':
      if (start.tagId === 0) return startKinds.tag.name
      return `${start.gets ? 'gets' : 'loses'} the tag ${named(of.tags, start.tagId)}`
    case 'field': {
      const field = of.fields.find(({ key }) => key === start.field)?.name
      if (!field) return startKinds.field.name
      return start.to === null ? `has another ${field}` : `has ${field} set to ${start.to}`
    }
    case 'mailed': {
      if (start.mailingId === 0) return startKinds.mailed.name
      const mailing = `“${named(of.otherMailings, start.mailingId)}”`
      const did = { sent: 'is sent', opened: 'opens', clicked: 'clicks in' }
      return start.did === 'not opened'
        ? `does not open ${mailing}`
        : `${did[start.did]} ${mailing}`
    }
    case 'moment':
      return start.segmentId === 0
        ? 'is on the list'
        : `is in ${named(of.segments, start.segmentId)}`
    case 'api':
      return startKinds.api.name
  }
}

function dateWords({ of: key, days, yearly }: DateStart, { fields }: OfStart): string {
  const name = key === JOINED ? 'day of joining' : fields.find((field) => field.key === key)?.name
  if (!name) return startKinds.date.name
  const when = `${days === 0 ? 'on ' : ''}${daysAround(days, name)}`
  return `${when}${yearly ? ', every year' : ''}`
}

/** What somebody comes in by, on the map. */
export function startWords(by: readonly Starting[], of: OfStart): string {
  const words = by.map((one) => startingWords(one, of))
  return `Start: ${words.join(', or ') || 'let in by hand'}`
}

/** What else is to be said of ways in: "no order in 4 hours". */
export function startAbout(by: readonly Starting[]): string[] {
  return by.flatMap((start): string[] => {
    switch (start.is) {
      case 'left behind': {
        const what = start.unless === null ? 'order' : `“${start.unless}”`
        return [`no ${what} in ${waitWords(start.within)}`]
      }
      case 'date':
        return [`at ${clock(start.hour * 60)}`]
      case 'mailed':
        return start.did === 'not opened' ? [`within ${waitWords(start.within)}`] : []
      case 'moment':
        return start.from ? [`${momentWords(start)}, at ${clock(start.hour * 60)}`] : []
      default:
        return []
    }
  })
}

/** "every first Monday of the month, from 4 Jan 2027 on". */
const momentWords = ({ from, rule }: MomentStart): string =>
  rule === null ? `on ${dayText(from)}` : `${repeatWords(rule, from)}, from ${dayText(from)} on`

/** How often somebody may come in. */
export function againWords(again: Again): string {
  switch (again.is) {
    case 'never':
      return 'once a person'
    case 'finished':
      return 'again after finishing'
    case 'days':
      return `again after ${again.days} ${again.days === 1 ? 'day' : 'days'}`
    case 'each':
      return 'each time'
  }
}

/** The segments of which somebody has to be in one. */
export const segmentsOf = (what: Happening): number[] =>
  what.is === 'fits' ? segmentsOfRule(what.rule) : []

const partsOf = (rule: Rule): readonly Rule[] => (rule.kind === 'any' ? rule.of : [rule])
export const segmentsOfRule = (rule: Rule | null | undefined): number[] =>
  rule ? partsOf(rule).flatMap((part) => (part.kind === 'segment' ? part.segmentId : [])) : []

/** A rule that asks anything else than to be in one of some segments, in the words of the segment language; else null. */
export function otherRule(
  rule: Rule | null | undefined,
  { rules }: Pick<OpenSequence, 'rules'>,
): string | null {
  if (!rule) return null
  const parts = partsOf(rule)
  return parts.length > 0 && parts.every(({ kind }) => kind === 'segment')
    ? null
    : (rules[JSON.stringify(rule)] ?? (parts.length ? 'a rule of its own' : 'nobody'))
}

export function actWords(act: Act, of: Of): string {
  switch (act.is) {
    case 'tag':
      return `tag “${act.tag}”`
    case 'untag':
      return `take away “${act.tag}”`
    case 'set':
      return act.value.trim()
        ? `set ${fieldName(act.field, of)} to ${act.value}`
        : `clear ${fieldName(act.field, of)}`
    case 'add':
      return `add ${act.value} to ${fieldName(act.field, of)}`
    case 'start':
      return `let into ${of.others.find(({ id }) => id === act.sequenceId)?.name ?? 'another sequence'}`
    case 'stop':
      return `take out of ${of.others.find(({ id }) => id === act.sequenceId)?.name ?? 'another sequence'}`
    case 'join':
      return `subscribe to ${of.lists.find(({ id }) => id === act.listId)?.name ?? 'a list'}`
    case 'note':
      return 'write a note'
    case 'task':
      return 'give the team a task'
    case 'tell':
      return act.to ? `tell ${act.to}` : 'tell the team'
    case 'hand':
      return `hand over to ${hostOf(act.url)}`
    case 'leave':
      return act.listId === null ? 'unsubscribe' : 'unsubscribe from a list'
    default:
      return actNames[act satisfies never]
  }
}

/** What a field is called; one that is not chosen yet, or is gone, has no name. */
const fieldName = (key: string, of: Of) =>
  of.fields.find((field) => field.key === key)?.name ?? (key || 'a field')

const hostOf = (url: string) => (URL.canParse(url) ? new URL(url).hostname : 'another program')

const days = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
export const clock = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`

/** "then Mon to Fri, 08:00 to 18:00". */
export function hoursWords({ days: open, from, to, off }: OpenHours): string {
  const isRow = open.length > 2 && open.every((day, n) => n === 0 || day === open[n - 1]! + 1)
  const named = isRow
    ? `${days[open[0]!]} to ${days[open.at(-1)!]}`
    : open.map((day) => days[day]).join(', ')
  const but = off ? `, but ${several(off.length, 'day off', 'days off')}` : ''
  return `then ${open.length === 7 ? 'any day' : named}, ${clock(from)} to ${clock(to)}${but}`
}

/** What a step is called on the map. */
export function stepWords(step: Step, of: Of): string {
  switch (step.kind) {
    case 'mail':
      return `Mail: ${mailStepWords(step, of)}`
    case 'wait':
      return untilWords(step, of)
    case 'fork':
      return step.ways.length === 1
        ? `Fork: ${happeningWords(step.ways[0]!.when, of)}?`
        : `Fork: ${step.ways.length + 1} ways`
    case 'split':
      return `Split by lot: ${step.ways.length + 1} ways`
    case 'do':
      return `Do: ${step.acts.map((act) => actWords(act, of)).join(', ') || 'nothing yet'}`
    case 'goal':
      return `Goal: ${goalWords(step, of)}`
  }
}

/** What a goal is called, or what it asks for; and within how long. */
export function goalWords({ name, when, within }: GoalStep, of: Of): string {
  const what = name.trim() || happeningWords(when, of)
  return within ? `${what}, within ${several(within, 'day', 'days')}` : what
}

/** "Wait until clicked in any mail", "Wait until 3 days before their Birthday". */
function untilWords({ ms, until }: WaitStep, of: Of): string {
  switch (until?.is) {
    case 'happens':
      return `Wait until ${happeningWords(until.what, of)}`
    case 'day':
      return `Wait until ${until.day}`
    case 'date': {
      const name = of.fields.find(({ key }) => key === until.of)?.name ?? 'a date that is gone'
      return `Wait until ${daysAround(until.days, name)}`
    }
    default:
      return `Wait ${waitWords(ms)}`
  }
}

/** "3 days before their Birthday". */
function daysAround(days: number, name: string): string {
  const many = `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`
  return days === 0 ? `their ${name}` : `${many} ${days < 0 ? 'before' : 'after'} their ${name}`
}

/** What a way out of a step is called, where there is more than one. */
export function wayWords(step: Step, way: number, of: Of): string {
  if (step.kind === 'fork')
    return way === 0
      ? 'everyone else'
      : step.ways.length === 1
        ? 'yes'
        : happeningWords(step.ways[way - 1]!.when, of)
  if (step.kind === 'wait' && step.back && way === BACK) return backWords(step.back, of)
  return waysOf(step)[way]?.words ?? ''
}

/** "back to “Fork: ordered?”". */
export function backWords({ to }: WayBack, of: Of): string {
  const step = of.map.steps[to]
  return `back to ${step ? `“${stepWords(step, of)}”` : 'a step that is gone'}`
}
