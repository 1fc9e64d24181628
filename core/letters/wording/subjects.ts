import { blocksOf, type Letter } from '../document'
import { plainInline } from '../rich-text'
import { sentences } from './tighten'

/** A subject made from the letter's own words, and where it comes from. */
export interface SubjectProposal {
  subject: string
  why: string
}

/** Longer subjects are cut by most mail programs; characters. */
const LONGEST = 60

/** Subjects out of the letter's headings, sentences and buttons, without the one it has. None from filler text. */
export function proposeSubjects(letter: Letter): SubjectProposal[] {
  const blocks = blocksOf(letter.document)
  const words = (text: Parameters<typeof plainInline>[0]) =>
    plainInline(text, () => '\uFFFC').trim()
  const headings = blocks.flatMap((block) => (block.kind === 'heading' ? [words(block.text)] : []))
  const lesser = blocks.flatMap((block) =>
    block.kind === 'heading' && block.level === 2 ? [words(block.text)] : [],
  )
  const said = blocks.flatMap((block) =>
    block.kind === 'text'
      ? block.text.content.flatMap((node) =>
          node.type === 'paragraph' ? [words({ type: 'doc', content: [node] })] : [],
        )
      : [],
  )
  const lines = said.flatMap((text) => sentences(text).map(({ sentence }) => sentence.trim()))
  const label = blocks.find((block) => block.kind === 'button')?.label ?? ''
  const [first, second] = headings
  const candidates: [string | undefined, string][] = [
    [first, 'the first heading'],
    [first && second && `${first}: ${lowered(second)}`, 'the first two headings'],
    [lesser.length >= 2 ? listed(lesser.slice(0, 3)) : undefined, 'what is in it'],
    [lines.find((line) => line.endsWith('?')), 'a question in it'],
    [lines.find((line) => /\d/.test(line)), 'a sentence with a number'],
    [
      lines.find((line) =>
        /\b(until|till|ends?|last|only|by (mon|tue|wed|thu|fri|sat|sun))/i.test(line),
      ),
      'a sentence with an end',
    ],
    [label && first ? `${label}: ${lowered(first)}` : undefined, 'the button and the heading'],
    [lines.find((line) => line.split(' ').length >= 4), 'the first sentence'],
  ]
  const seen = new Set([key(letter.subject)])
  return candidates.flatMap(([text, why]) => {
    const subject = tidy(text ?? '')
    if (!isUsable(subject) || seen.has(key(subject))) return []
    seen.add(key(subject))
    return [{ subject, why }]
  })
}

function isUsable(subject: string): boolean {
  return (
    subject.length >= 8 && subject.length <= LONGEST && !/[[\]\uFFFC{}]|lorem ipsum/i.test(subject)
  )
}

/** Without a greeting before it, without a full stop after it, and with a capital. */
function tidy(text: string): string {
  const bare = text
    .replace(/^(hello|hi|dear)\b[^,]*,\s*/i, '')
    .replace(/\s+/g, ' ')
    .replace(/[.:,;]+$/, '')
    .trim()
  return bare.charAt(0).toUpperCase() + bare.slice(1)
}

function listed(words: string[]): string {
  const [first, ...rest] = words
  const low = [first!, ...rest.map(lowered)]
  return low.length > 1 ? `${low.slice(0, -1).join(', ')} and ${low.at(-1)!}` : low[0]!
}

/** As it stands in the middle of a line; a name that is all capitals or has a figure keeps them. */
function lowered(text: string): string {
  const word = text.split(/\s/)[0] ?? ''
  const isName = /\d/.test(text.split(/\s/).slice(0, 2).join('')) || word === word.toUpperCase()
  return isName ? text : text.charAt(0).toLowerCase() + text.slice(1)
}

const key = (subject: string) =>
  subject
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
