import { jsonProblem } from '../json'
import { cleanDocument, startingLetter, type Letter } from '../letters'
import { parseRule, writeRule, type Catalog, type Rule } from '../segments'
import { readMap, type SequenceMap } from './map'
import { elsewhere, type Referred } from './references'
import type { MailStep } from './steps/mail'

/** A letter of a sequence, with what its mail is called. */
export interface NamedLetter extends Letter {
  name: string
}

/** Somebody wants to send a sequence elsewhere: what it is called, its list, and the letters of its mails by their numbers. */
export interface Taken {
  name: string
  listId: number | null
  map: SequenceMap
  letters: ReadonlyMap<number, NamedLetter>
}

/** What was read of a file. */
export interface ReadFile {
  name: string
  /** Null: its list is not there. */
  listId: number | null
  /** Its mails name their letters by place, counted from 1. */
  map: SequenceMap
  letters: NamedLetter[]
  /** What is not there, or can't be read here, in sentences. */
  missing: string[]
}

const KIND = 'sequence'
const VERSION = 1

/**
 * A sequence as JSON that can be read in any account; see "Files of sequences" in docs/users.md. What an account names by
 * number is named by what it is called, rules are text, and letters stand in their steps. Who sends it, and whether those who
 * fit already come in, is for whoever reads it to say.
 */
export function sequenceFile({ name, listId, map, letters }: Taken, names: Catalog): object {
  const { start, ...rest } = map
  const { sender: _, already: __, ...asked } = start
  const asText = (rule: unknown) => writeRule(rule as Rule, names)
  return {
    ...{ satchel: KIND, version: VERSION, name },
    list: listId === null ? null : (names.lists.get(listId) ?? ''),
    ...elsewhere(
      { ...rest, start: asked },
      {
        reference: (what, id) =>
          typeof id === 'number' ? (named(names, what).get(id) ?? '') : (id ?? null),
        rule: asText,
        mail: (step) =>
          withVersions(step, ({ mailingId, ...rest }) => ({
            ...rest,
            letter: withShownTo(letters.get(mailingId as number), asText),
          })),
      },
    ),
  }
}

/**
 * Reads a file that {@link sequenceFile} wrote, or somebody by hand. What it names is looked for in this account; what is not
 * there is left to be chosen, and a rule that can't be read here holds for nobody: it lets in or leads on none whom its author
 * did not mean.
 */
export function readSequenceFile(text: string, names: Catalog): ReadFile | { problem: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return { problem: `This is not JSON: ${(error as Error).message}.` }
  }
  const odd = jsonProblem(json)
  if (odd) return { problem: odd.message }
  const given = (typeof json === 'object' && json !== null ? json : {}) as Record<string, unknown>
  if (given.satchel !== KIND) return { problem: 'This is no sequence of Satchel.' }
  if (given.version !== VERSION)
    return { problem: 'This sequence was written by a newer Satchel than this one.' }
  const letters: NamedLetter[] = []
  const missing = new Set<string>()
  const readRule = (text: unknown): Rule => {
    const read = typeof text === 'string' ? parseRule(text, names) : null
    if (read?.ok) return read.rule
    const what = typeof text === 'string' ? `“${text.slice(0, 200)}”` : 'A rule'
    missing.add(
      `${what} can’t be read here, so it holds for nobody.${read ? ` ${read.message}` : ''}`,
    )
    return { kind: 'any', of: [] }
  }
  const changed = elsewhere(given, {
    reference(what, name) {
      if (name === null) return null
      const found = typeof name === 'string' && name !== '' ? idOf(named(names, what), name) : 0
      if (found === 0 && typeof name === 'string' && name !== '')
        missing.add(`There is no ${referredNames[what]} “${name}” here: choose another.`)
      return found
    },
    rule: readRule,
    mail: (step, id) =>
      withVersions(step, ({ letter, ...rest }) => {
        const read = readLetter(withShownTo(letter, readRule))
        if (!read) missing.add(`The letter of step “${id}” can’t be read, so it begins anew.`)
        letters.push(read ?? { ...startingLetter(), name: id })
        return { ...rest, mailingId: letters.length }
      }),
  })
  const map = readMap(changed)
  if (!map) return { problem: 'The map of this sequence can’t be read: a step or a way is odd.' }
  const name = line(given.name, 100).trim() || 'From a file'
  const list = line(given.list, 200)
  const listId = idOf(names.lists, list) || null
  if (list && listId === null) missing.add(`There is no list “${list}” here: choose another.`)
  const { already: _, sender: __, ...start } = map.start
  return { name, listId, map: { ...map, start }, letters, missing: [...missing] }
}

/** The map with the mailings of its mails named anew. */
export function withMailings(map: SequenceMap, change: (mailingId: number) => number): SequenceMap {
  return {
    ...map,
    steps: Object.fromEntries(
      Object.entries(map.steps).map(([id, step]) => [
        id,
        step.kind === 'mail' ? mailOf(step, change) : step,
      ]),
    ),
  }
}

function mailOf(step: MailStep, change: (mailingId: number) => number): MailStep {
  const { mailingId, versions } = step
  const main = { ...step, mailingId: change(mailingId) }
  return versions
    ? {
        ...main,
        versions: versions.map((one) => ({ ...one, mailingId: change(one.mailingId) })),
      }
    : main
}

type Json = Record<string, unknown>

/** A step of mail with what each of its versions holds changed, the main one's first. */
function withVersions(step: Json, change: (version: Json) => Json): Json {
  const { versions, ...main } = step
  const changed = change(main)
  if (!Array.isArray(versions)) return versions == null ? changed : step
  return {
    ...changed,
    versions: versions.map((one: unknown) =>
      typeof one === 'object' && one !== null ? change(one as Json) : one,
    ),
  }
}

const referredNames: Record<Referred, string> = {
  ...{ list: 'list', tag: 'tag', segment: 'segment', sequence: 'sequence', mailing: 'mailing' },
  signUp: 'sign-up',
}

function named(names: Catalog, what: Referred): ReadonlyMap<number, string> {
  switch (what) {
    case 'list':
      return names.lists
    case 'tag':
      return names.tags
    case 'segment':
      return new Map([...names.segments].map(([id, { name }]) => [id, name]))
    case 'sequence':
      return names.sequences
    case 'mailing':
      return names.mailings
    case 'signUp':
      return names.signUps
  }
}

/** The latest that is called so, in whatever case; 0: none is. */
function idOf(names: ReadonlyMap<number, string>, name: string): number {
  const same = name.normalize('NFC').trim().toLowerCase()
  const found = [...names].filter(([, one]) => one.toLowerCase() === same).map(([id]) => id)
  return Math.max(0, ...found)
}

/** A letter as it stands in a step; null where it is none. Stamps are linked by numbers of another account. */
function readLetter(json: unknown): NamedLetter | null {
  if (typeof json !== 'object' || json === null) return null
  const { name, subject, previewText, document } = json as Record<string, unknown>
  const read = cleanDocument(document)
  if (!read) return null
  return {
    name: line(name, 120).trim() || line(subject, 120) || 'Mail',
    ...{ subject: line(subject, 500), previewText: line(previewText, 500) },
    document: { ...read, rows: read.rows.map(({ stamp: _, ...row }) => row) },
  }
}

/** A letter as JSON with the rules changed by which parts of it are shown. */
function withShownTo(json: unknown, change: (rule: unknown) => unknown): unknown {
  if (Array.isArray(json)) return json.map((one) => withShownTo(one, change))
  if (typeof json !== 'object' || json === null) return json
  return Object.fromEntries(
    Object.entries(json).map(([key, value]: [string, unknown]) => [
      key,
      key === 'shownTo' && typeof value === 'object' && value !== null && 'rule' in value
        ? { rule: change(value.rule) }
        : withShownTo(value, change),
    ]),
  )
}

const line = (value: unknown, most: number): string =>
  typeof value === 'string'
    ? value
        .normalize('NFC')
        .replace(/[\s\p{Cc}]+/gu, ' ')
        .slice(0, most)
    : ''
