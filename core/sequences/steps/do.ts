import type { Effect, StepKind } from './kind'

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
  start: 'Let into another sequence',
  stop: 'Take out of another sequence',
  join: 'Subscribe to a list',
  leave: 'Unsubscribe from a list',
  note: 'Write a note on them',
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
    ...(acts.some((act) => act.is === 'join' && act.listId === 0)
      ? ['People are subscribed to a list, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'join' && act.statement.trim() === '')
      ? ['People are subscribed to a list, and it is not said what they agreed to.']
      : []),
    ...(acts.some((act) => act.is === 'note' && act.text.trim() === '')
      ? ['A note is to be written, and has no words.']
      : []),
    ...(acts.some((act) => act.is === 'stop' && act.sequenceId === 0)
      ? ['People are taken out of another sequence, and it is not said which.']
      : []),
    ...(acts.some((act) => act.is === 'start' && act.sequenceId === 0)
      ? ['People are let into another sequence, and it is not said which.']
      : []),
  ],
}

function readAct(json: unknown): Act | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, tag, field, value, sequenceId, listId, statement, text } = json as Record<
    string,
    unknown
  >
  const isText = (text: unknown, most: number): text is string =>
    typeof text === 'string' && text.length <= most
  /** 0: none is chosen yet. */
  const isId = (id: unknown): id is number => Number.isSafeInteger(id) && (id as number) >= 0
  switch (is) {
    case 'tag':
    case 'untag':
      return isText(tag, 60) ? { is, tag } : null
    case 'set':
      return isText(field, 60) && isText(value, 1_000) ? { is, field, value } : null
    case 'start':
    case 'stop':
      return isId(sequenceId) ? { is, sequenceId } : null
    case 'join':
      return isId(listId) && isText(statement, 2_000) ? { is, listId, statement } : null
    case 'note':
      return isText(text, 2_000) ? { is, text } : null
    case 'leave':
      return listId === null || Number.isSafeInteger(listId)
        ? { is, listId: listId as number | null }
        : null
    default:
      return null
  }
}
