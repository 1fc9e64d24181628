import type { Rule } from '~~/core/segments'
import { totalOf } from '~~/core/counting'
import type { Band, Rehearsal } from '~~/core/rehearsal'
import {
  actNames,
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
} from '~~/core/sequences'
import type { OpenSequence } from '~/stores/sequence'
import { writeComparison, type Carried } from '~~/core/segments'
import { dayText } from '~~/core/time'
import { repeatWords } from './repeats'
import { waitWords } from './waits'

type Of = Pick<
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
const clock = (minute: number) =>
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
  return waysOf(step)[way]?.words ?? ''
}

/** The same of a rehearsal: the middle of its draws, and under the words what nine in ten lie between. */
export function rehearsedFigures(
  id: string,
  step: Step,
  of: OpenSequence,
  rehearsal: Rehearsal,
): { about: string; count: string } {
  const ways = rehearsal.traffic[id] ?? []
  const some = (band: Band | undefined) => count(band?.middle ?? 0)
  const share = (band: Band | undefined) =>
    percent((band?.middle ?? 0) / Math.max(1, ways[0]?.middle ?? 0))
  switch (step.kind) {
    case 'mail':
      return {
        count: `${some(ways[0])} get it`,
        about: ways[0]
          ? `${share(rehearsal.opened[id])} open · ${share(rehearsal.clicked[id])} click`
          : '',
      }
    case 'wait': {
      const { about } = stepFigures(id, step, of)
      const here = rehearsal.standing[id]
      return { about, count: here ? `${some(here)} still here` : `${someOf(ways)} came by` }
    }
    case 'goal':
      return {
        about: between(ways[1]),
        count: `${some(ways[1])} reach it`,
      }
    default:
      return { about: '', count: `${someOf(ways)} came by` }
  }
}

const someOf = (ways: readonly Band[]) => count(ways.reduce((sum, { middle }) => sum + middle, 0))

/** "1,821 to 1,855": what nine draws in ten lie between. */
export const between = (band: Band | undefined, words: (n: number) => string = count): string =>
  !band || words(band.low) === words(band.high) ? '' : `${words(band.low)} to ${words(band.high)}`

/** What came of a step's mail, whichever version of it people got. */
export function mailFigures(step: MailStep, { mailings }: Pick<OpenSequence, 'mailings'>) {
  const ids = mailingsOfStep(step)
  const mails = mailings.filter(({ id }) => ids.includes(id))
  const sum = (of: (mail: (typeof mails)[number]) => number) =>
    mails.reduce((all, mail) => all + of(mail), 0)
  return {
    delivered: sum((mail) => totalOf(mail, 'delivered')),
    opened: sum(({ opened }) => opened ?? 0),
    clicked: sum(({ clicked }) => clicked ?? 0),
  }
}

/** What stands under a step's words, and beside it: figures of what came of it. */
export function stepFigures(
  id: string,
  step: Step,
  of: OpenSequence,
): { about: string; count: string } {
  const passed = (way?: number) => {
    const ways = of.traffic[id] ?? []
    return way === undefined ? ways.reduce((sum, n) => sum + n, 0) : (ways[way] ?? 0)
  }
  switch (step.kind) {
    case 'mail': {
      const { delivered, opened, clicked } = mailFigures(step, of)
      return {
        about: delivered
          ? `${percent(opened / delivered)} opened · ${percent(clicked / delivered)} clicked`
          : 'not sent yet',
        count: `${count(delivered)} sent`,
      }
    }
    case 'wait':
      return {
        about: [
          step.until?.is === 'happens' && `at most ${waitWords(step.ms)}`,
          step.until &&
            step.until.is !== 'happens' &&
            !step.best &&
            `at ${clock(step.until.hour * 60)}`,
          step.best && 'at their best hour',
          step.hours && hoursWords(step.hours),
          step.clock !== undefined && 'their clock',
        ]
          .filter(Boolean)
          .join(', '),
        count: `${count(of.standing[id] ?? 0)} here`,
      }
    case 'goal':
      return {
        about: `${happeningWords(step.when, of)}; ${step.out ? 'who does is out' : step.ways ? 'who does goes a way of their own' : 'who does goes on from here'}`,
        count: `${count(passed(1))} reached`,
      }
    default:
      return { about: '', count: `${count(passed())} came by` }
  }
}
