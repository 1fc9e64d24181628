import { LONGEST_TASK, MOST_TASK_DAYS } from '../../people'
import type { Referred } from '../references'
import { handHows, type Effect, type HandHow, type StepKind } from './kind'

/** What is done with somebody besides mail, one after the other. */
export interface DoStep {
  kind: 'do'
  acts: Act[]
  next: string | null
}

export type Act = Exclude<Effect, { is: 'mail' }>

export const actNames: Record<Act['is'], string> = {
  tag: 'Give a tag',
  untag: 'Take a tag away',
  set: 'Set a field',
  add: 'Add to a field',
  start: 'Let into another sequence',
  stop: 'Take out of another sequence',
  join: 'Subscribe to a list',
  leave: 'Unsubscribe from a list',
  note: 'Write a note on them',
  task: 'Give the team a task',
  tell: 'Tell the team by mail',
  hand: 'Hand over to another program',
}
const MOST_ACTS = 10

export const doing: StepKind<DoStep> = {
  name: 'Do',
  read({ acts }) {
    if (!Array.isArray(acts) || acts.length > MOST_ACTS) return null
    const read = acts.map(readAct)
    return read.every((act) => act !== null) ? { kind: 'do', acts: read } : null
  },
  carryOut: ({ acts }) => ({ effects: acts, way: 0 }),
  problems: ({ acts }) => [
    ...(acts.length === 0 ? ['A step that is to do something does nothing yet.'] : []),
    ...(acts.some((act) => 'tag' in act && act.tag.trim() === '')
      ? ['A tag to give or to take away has no name.']
      : []),
    ...(acts.some((act) => act.is === 'set' && act.field === '')
      ? ['A field is to be set, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'add' && (act.field === '' || act.value.trim() === ''))
      ? ['A field is to be added to, and it is not said which, or what.']
      : []),
    ...(acts.some((act) => act.is === 'join' && act.listId === 0)
      ? ['People are subscribed to a list, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'leave' && act.listId === 0)
      ? ['People are taken off a list, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'join' && act.statement.trim() === '')
      ? ['People are subscribed to a list, and it is not said what they agreed to.']
      : []),
    ...(acts.some((act) => act.is === 'note' && act.text.trim() === '')
      ? ['A note is to be written, and has no words.']
      : []),
    ...(acts.some((act) => act.is === 'task' && act.text.trim() === '')
      ? ['The team gets a task, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'tell' && (act.to === '' || act.text.trim() === ''))
      ? ['The team is told by mail, and it is not said who, or what.']
      : []),
    ...(acts.some((act) => act.is === 'hand' && !isWebAddress(act.url))
      ? ['People are handed over to another program, and its web address is missing.']
      : []),
    ...(acts.some((act) => act.is === 'hand' && hasTwice(act.fields.map((field) => field.as)))
      ? ['Two values are handed over under the same name.']
      : []),
    ...(acts.some((act) => act.is === 'stop' && act.sequenceId === 0)
      ? ['People are taken out of another sequence, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'start' && act.sequenceId === 0)
      ? ['People are let into another sequence, and it is not said which.']
      : []),
  ],
}

/** The values that can go along besides fields, by their keys, and {@link OF_EVENT} with what the event carried that they came in by, as a fill-in names it. */
export const handable = { first_name: 'First name', last_name: 'Last name' } as const
export const OF_EVENT = 'event.'
const MOST_FIELDS = 30

function readField(json: unknown): { as: string; from: string } | null {
  const { as, from } = (json ?? {}) as Record<string, unknown>
  const isName = (text: unknown): text is string =>
    typeof text === 'string' && text.length > 0 && text.length <= 100
  return isName(as) && isName(from) ? { as, from } : null
}

const hasTwice = (names: readonly string[]) => new Set(names).size < names.length

function isWebAddress(text: string): boolean {
  return URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)
}

/** The acts that name something of the account, by number: under which key, and what. */
export const actRefers: { readonly [is in Act['is']]?: readonly [key: string, what: Referred] } = {
  start: ['sequenceId', 'sequence'],
  stop: ['sequenceId', 'sequence'],
  join: ['listId', 'list'],
  leave: ['listId', 'list'],
}

function readAct(json: unknown): Act | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, tag, field, value, sequenceId, listId, statement, text, days, to, url, how, fields } =
    json as Record<string, unknown>
  const isText = (text: unknown, most: number): text is string =>
    typeof text === 'string' && text.length <= most
  /** 0: none is chosen yet. */
  const isId = (id: unknown): id is number => Number.isSafeInteger(id) && (id as number) >= 0
  switch (is) {
    case 'tag':
    case 'untag':
      return isText(tag, 60) ? { is, tag } : null
    case 'set':
    case 'add':
      return isText(field, 60) && isText(value, 1_000) ? { is, field, value } : null
    case 'start':
    case 'stop':
      return isId(sequenceId) ? { is, sequenceId } : null
    case 'join':
      return isId(listId) && isText(statement, 2_000) ? { is, listId, statement } : null
    case 'note':
      return isText(text, 2_000) ? { is, text } : null
    case 'task':
      return isText(text, LONGEST_TASK) && isText(to, 320) && isId(days) && days <= MOST_TASK_DAYS
        ? { is, text, days, to }
        : null
    case 'tell':
      return isText(to, 320) && isText(text, 2_000) ? { is, to, text } : null
    case 'hand': {
      const read =
        Array.isArray(fields) && fields.length <= MOST_FIELDS ? fields.map(readField) : []
      if (!Array.isArray(fields) || read.length !== fields.length || read.includes(null))
        return null
      if (!isText(url, 2_000) || typeof how !== 'string' || !Object.hasOwn(handHows, how))
        return null
      return { is, url, how: how as HandHow, fields: read as { as: string; from: string }[] }
    }
    case 'leave':
      return listId === null || Number.isSafeInteger(listId)
        ? { is, listId: listId as number | null }
        : null
    default:
      return null
  }
}
