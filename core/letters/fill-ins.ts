import { Liquid, type Template } from 'liquidjs'
import { blocksOf, type Letter } from './document'
import { inlinesOf } from './rich-text'

/** A fill-in: which value, and what stands there when a reader has none. */
export interface FillIn {
  expression: string
  path: string
  /** Null where there is no fallback. An empty fallback is one: the author meant it. */
  fallback: string | null
}

/** What fill-ins can name: `person.town`, `list.name`, `mailing.name`, `sender.name`. */
export type FillInContext = Record<string, Record<string, unknown>>

/** Values are written one after the other for many readers, so none may take long: ms, and units of Liquid's own. */
const liquid = new Liquid({
  strictFilters: true,
  ownPropertyOnly: true,
  parseLimit: 10_000,
  renderLimit: 100,
  memoryLimit: 100_000,
})

/**
 * All that a fill-in may be: a value by its name, then filters of this list with words, numbers or values behind them.
 * Liquid can do more, ranges of any length among it; nothing of that is let through to it.
 *
 *     fill-in  = value *( "|" filter )
 *     filter   = name [ ":" argument *( "," argument ) ]
 *     argument = string | number | value
 *     value    = word *3( "." word )
 */
const word = '[A-Za-z_]\\w{0,60}'
const value = `${word}(?:\\.${word}){0,3}`
const quoted = `"(?:[^"\\\\]|\\\\.)*"|'(?:[^'\\\\]|\\\\.)*'`
const argument = `(?:${quoted}|-?\\d{1,9}(?:\\.\\d{1,6})?|${value})`
const oneFilter = `\\s*\\|\\s*(${word})\\s*(?::\\s*(${argument}(?:\\s*,\\s*${argument}){0,3}))?`
const wholeFillIn = new RegExp(`^\\s*(?:${value})(?:${oneFilter}){0,6}\\s*$`)
const eachFilter = new RegExp(oneFilter, 'g')
const eachQuoted = new RegExp(quoted, 'g')

/** The filters there are. None makes more of a value than is written beside it. */
const allowed = [
  ...['default', 'capitalize', 'upcase', 'downcase', 'strip', 'truncate', 'truncatewords'],
  ...['append', 'prepend', 'round', 'first', 'last', 'escape'],
]
/** Those that stop the whole letter without exactly one argument. */
const ofOneArgument = ['append', 'prepend']
/** Characters of one fill-in as it is written, and of what comes of it. */
const LONGEST_SOURCE = 500
const LONGEST_OUTPUT = 4_000
/** Characters of a value before filters change it: so short that no filters, one after the other, come to Liquid's limits. */
const LONGEST_FILTERED = 1_000

const written: Record<string, (value: unknown) => unknown> = {
  day: asDate({ day: 'numeric', month: 'long' }),
  full_day: asDate({ day: 'numeric', month: 'long', year: 'numeric' }),
  weekday: asDate({ weekday: 'long' }),
  thousands(value) {
    const number = String(value ?? '').trim() === '' ? NaN : Number(value)
    return Number.isFinite(number) ? number.toLocaleString('en-GB') : value
  },
}
for (const [name, write] of Object.entries(written)) liquid.registerFilter(name, write)

/** Days as they are kept, `2026-11-24`; anything else is left as it is. */
function asDate(options: Intl.DateTimeFormatOptions) {
  const format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' })
  return (value: unknown) => {
    const day = /^\d{4}-\d{2}-\d{2}/.exec(String(value ?? ''))?.[0]
    const at = day ? Date.parse(day) : NaN
    return Number.isNaN(at) ? value : format.format(at)
  }
}

const output = /\{\{([^{}]*)\}\}/g

/** The text of a subject or preview cut at its fill-ins: plain text and expressions in turn. */
export function readTemplateText(text: string): (string | { expression: string })[] {
  const pieces: (string | { expression: string })[] = []
  let from = 0
  for (const match of text.matchAll(output)) {
    if (match.index > from) pieces.push(text.slice(from, match.index))
    pieces.push({ expression: match[1]!.trim() })
    from = match.index + match[0].length
  }
  if (from < text.length) pieces.push(text.slice(from))
  return pieces
}

/** Every fill-in of a letter with the block it stands in; null for the subject and the preview text. */
export function fillInsOf(letter: Letter): { fillIn: FillIn; blockId: string | null }[] {
  const found: { fillIn: FillIn; blockId: string | null }[] = []
  for (const text of [letter.subject, letter.previewText])
    for (const piece of readTemplateText(text))
      if (typeof piece !== 'string')
        found.push({ fillIn: readFillIn(piece.expression), blockId: null })
  for (const block of blocksOf(letter.document))
    if ('text' in block)
      for (const node of inlinesOf(block.text.content))
        if (node.type === 'fillIn')
          found.push({ fillIn: readFillIn(node.attrs.expression), blockId: block.id })
  return found
}

/** Reads `person.first_name | default: "there"`. */
export function readFillIn(expression: string): FillIn {
  const path = /^[\s]*([a-z_][\w.]*)/i.exec(expression)?.[1] ?? expression.trim()
  const fallback = /\|\s*default:\s*(?:"([^"]*)"|'([^']*)')/.exec(expression)
  return { expression, path, fallback: fallback ? (fallback[1] ?? fallback[2] ?? '') : null }
}

/** How a value can be written: a filter of Liquid, or none. */
export const fillInFormats = [
  { filter: '', name: 'as it is' },
  { filter: 'capitalize', name: 'with a capital' },
  { filter: 'upcase', name: 'IN CAPITALS' },
  { filter: 'downcase', name: 'in small letters' },
  { filter: 'day', name: 'as a day: 24 November' },
  { filter: 'full_day', name: 'with the year: 24 November 2026' },
  { filter: 'weekday', name: 'as a weekday: Tuesday' },
  { filter: 'thousands', name: 'as a number: 12,500' },
] as const

/** The other way round; a fallback is written as it is given. */
export function writeFillIn(path: string, fallback: string | null, format = ''): string {
  const formatted = format ? `${path} | ${format}` : path
  return fallback === null
    ? formatted
    : `${formatted} | default: "${fallback.replace(/["{}%]/g, '')}"`
}

/** Why an expression is no fill-in at all, in words; null where it is one, though its filters may not be. */
export function fillInProblem(expression: string): string | null {
  if (expression.length > LONGEST_SOURCE)
    return `A fill-in has at most ${LONGEST_SOURCE} characters; this one has ${expression.length}.`
  if (/[{}%]/.test(expression)) return 'A fill-in holds one value, no tags.'
  if (!wholeFillIn.test(expression))
    return 'A fill-in names one value, such as person.first_name, with filters behind it.'
  return null
}

/**
 * Why an expression is not even kept, in words: it is of a kind that could take any time and memory, or very long. One that
 * is only not finished yet is kept, and the proof says what it lacks.
 */
export function fillInRefusal(expression: string): string | null {
  const bare = expression.replace(eachQuoted, '""')
  if (expression.length > LONGEST_SOURCE) return fillInProblem(expression)
  return /\.\.|[()[\]{}%]/.test(bare)
    ? 'A fill-in names one value, such as person.first_name, with filters behind it; no ranges, no brackets.'
    : null
}

/** What is wrong with an expression, or null. Tags are refused: a fill-in only outputs. */
export function fillInSyntaxProblem(expression: string): string | null {
  try {
    compileFillIn(expression)
    return null
  } catch (error) {
    return error instanceof Error ? error.message.split('\n')[0]! : 'This fill-in can’t be read.'
  }
}

/** An expression as a function from a reader's values to text, not escaped. Throws where it can't be read. */
export function compileFillIn(expression: string): (context: FillInContext) => string {
  const problem = fillInProblem(expression)
  if (problem) throw new Error(problem)
  for (const [, name, given] of expression.replace(eachQuoted, '""').matchAll(eachFilter)) {
    if (!allowed.includes(name!) && !Object.hasOwn(written, name!))
      throw new Error(`undefined filter: ${name}`)
    if (ofOneArgument.includes(name!) && given?.split(',').length !== 1)
      throw new Error(`${name} takes one text or value, such as ${name}: "!"`)
  }
  const template: Template[] = liquid.parse(`{{ ${expression} }}`)
  return (
    plainFillIn(expression) ??
    ((context) => String(liquid.renderSync(template, shortened(context))).slice(0, LONGEST_OUTPUT))
  )
}

function shortened(value: unknown): object {
  const short = (part: unknown): unknown =>
    typeof part === 'string'
      ? part.slice(0, LONGEST_FILTERED)
      : typeof part === 'object' && part !== null && !(part instanceof Date)
        ? shortened(part)
        : part
  if (Array.isArray(value)) return value.slice(0, LONGEST_FILTERED).map(short)
  return Object.fromEntries(
    Object.entries(value as object).map(([key, part]) => [key, short(part)]),
  )
}

/** Nearly all fill-ins are a value with or without a fallback; those need no Liquid for each reader. Null: others. */
export function plainFillIn(expression: string): ((context: FillInContext) => string) | null {
  const plain =
    /^\s*([a-z]\w*)\.([a-z]\w*)\s*(?:\|\s*default:\s*(?:"([^"\\]*)"|'([^'\\]*)')\s*)?$/.exec(
      expression,
    )
  if (!plain) return null
  const [, group, key, double, single] = plain
  const fallback = double ?? single
  return (context) => {
    const of = context[group!]
    const value = of && Object.hasOwn(of, key!) ? of[key!] : undefined
    const missing = value === undefined || value === null
    // Only the filter takes what is false or empty for missing, too.
    if (fallback !== undefined && (missing || value === false || value === '')) return fallback
    return missing ? '' : String(value).slice(0, LONGEST_OUTPUT)
  }
}
