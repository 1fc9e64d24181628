import { blocksOf, type Block, type LetterDocument } from '../document'
import { updateBlock } from '../changes'
import type { Inline, RichText, TextNode } from '../rich-text'
import { fillers, formal, friendlier, plainer, shorter } from './phrases'

/** What one may want of a text. */
export const manners = [
  { key: 'shorten', name: 'Shorten' },
  { key: 'plainer', name: 'Plainer' },
  { key: 'split', name: 'Split' },
  { key: 'friendlier', name: 'Friendlier' },
  { key: 'formal', name: 'More formal' },
] as const
export type Manner = (typeof manners)[number]['key']

/** A change proposed in one paragraph, to be taken or passed over. Places count characters of the paragraph. */
export interface Proposal {
  blockId: string
  /** Which of the block's paragraphs, counted through its lists. */
  paragraph: number
  from: number
  to: number
  before: string
  after: string
  /** The words around it, to know it by. */
  around: [left: string, right: string]
}

/** Longer sentences are hard to take in at one reading; words. */
const LONG = 26
/** Stands for what is no text: fill-ins and line breaks. No change reaches over it. */
const HOLE = '\uFFFC'

/** What could be said otherwise, in reading order; changes of one manner never overlap. */
export function tighten(document: LetterDocument, manner: Manner): Proposal[] {
  return blocksOf(document).flatMap((block) => {
    if (!('text' in block) || block.kind === 'footer') return []
    return paragraphsOf(block.text).flatMap((inlines, paragraph) => {
      const text = plain(inlines)
      return withoutOverlap(found(text, manner)).map(({ from, to, after }) => ({
        blockId: block.id,
        paragraph,
        from,
        to,
        before: text.slice(from, to),
        after,
        around: [wordsBefore(text, from), wordsAfter(text, to)] as [string, string],
      }))
    })
  })
}

/** The document with a proposal taken; as it was where what it is about is not there any more. */
export function taken(document: LetterDocument, proposal: Proposal): LetterDocument {
  const block = blocksOf(document).find(({ id }) => id === proposal.blockId)
  if (!block || !('text' in block)) return document
  let n = 0
  const changed = (nodes: readonly TextNode[]): TextNode[] =>
    nodes.map((node): TextNode => {
      if (node.type !== 'paragraph')
        return {
          ...node,
          content: node.content.map((item) => ({ ...item, content: changed(item.content) })),
        }
      if (n++ !== proposal.paragraph) return node
      const content = node.content ?? []
      if (plain(content).slice(proposal.from, proposal.to) !== proposal.before) return node
      return { ...node, content: replaced(content, proposal) }
    })
  const text: RichText = {
    type: 'doc',
    content: changed((block as { text: RichText }).text.content),
  }
  return updateBlock(document, block.id, { text } as Partial<Block>)
}

interface Change {
  from: number
  to: number
  after: string
}

function found(text: string, manner: Manner): Change[] {
  switch (manner) {
    case 'shorten':
      return [...phrases(text, shorter), ...withoutFillers(text)]
    case 'plainer':
      return phrases(text, plainer)
    case 'split':
      return splits(text)
    case 'friendlier':
      return phrases(text, friendlier)
    case 'formal':
      return [...phrases(text, formal), ...calmer(text)]
  }
}

/** Phrases said otherwise, with the capital they began with. A phrase that goes takes its space along. */
function phrases(text: string, instead: Record<string, string>): Change[] {
  const listed = patternOf(instead)
  return [...text.matchAll(listed)].map(({ 0: phrase, index: from }) => {
    const after = instead[phrase.toLowerCase().replaceAll("'", '’').replace(/\s+/g, ' ')] ?? phrase
    const to = from + phrase.length
    if (after !== '') return { from, to, after: likeFirst(phrase, after) }
    const next = /^\s*(\S)/.exec(text.slice(to))
    if (!next) return { from, to, after: '' }
    const end = to + next[0].length
    // What comes next begins the sentence now.
    return next[1] === HOLE
      ? { from, to: end - 1, after: '' }
      : { from, to: end, after: isUpper(phrase) ? next[1]!.toUpperCase() : next[1]! }
  })
}

const patterns = new WeakMap<object, RegExp>()
/** Any of the phrases, the longest first, as whole words. */
function patternOf(instead: Record<string, string>): RegExp {
  const known = patterns.get(instead)
  if (known) return known
  const any = Object.keys(instead)
    .sort((a, b) => b.length - a.length)
    .map((phrase) =>
      phrase
        .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
        .replaceAll('’', "['’]")
        .replaceAll(' ', '\\s+'),
    )
    .join('|')
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}'’-])(?:${any})(?![\\p{L}\\p{N}'’-])`, 'giu')
  patterns.set(instead, pattern)
  return pattern
}

function withoutFillers(text: string): Change[] {
  const any = new RegExp(`(?<![\\p{L}'’-])(?:${fillers.join('|')})\\s+(?=\\p{Ll})`, 'gu')
  return [...text.matchAll(any)].map(({ 0: word, index }) => ({
    from: index,
    to: index + word.length,
    after: '',
  }))
}

/** A long sentence is parted where a new one could begin: at a semicolon, or before a clause with a subject of its own. */
function splits(text: string): Change[] {
  const joints =
    /;\s+(?=\p{L})|,\s+(and|but|so)\s+(?=(?:we|you|they|it|he|she|I|there|this|that|the|our|your)\s)/giu
  return sentences(text).flatMap(({ from, sentence }) => {
    if (wordCount(sentence) <= LONG) return []
    const middle = sentence.length / 2
    const joint = [...sentence.matchAll(joints)]
      .filter(
        ({ 0: match, index }) =>
          wordCount(sentence.slice(0, index)) >= 5 &&
          wordCount(sentence.slice(index + match.length)) >= 5,
      )
      .sort((a, b) => Math.abs(a.index - middle) - Math.abs(b.index - middle))[0]
    if (!joint) return []
    const { 0: match, 1: word, index } = joint
    const next = sentence.charAt(index + match.length)
    const begin = word && word.toLowerCase() !== 'and' ? `${capital(word)} ${next}` : capital(next)
    return [{ from: from + index, to: from + index + match.length + 1, after: `. ${begin}` }]
  })
}

/** An exclamation mark less. */
function calmer(text: string): Change[] {
  return [...text.matchAll(/!+/g)].map(({ 0: marks, index }) => ({
    from: index,
    to: index + marks.length,
    after: '.',
  }))
}

const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' })
/** A point behind these ends no sentence; nor does one behind a letter alone, as of initials (“I” is a word). */
const abbreviated =
  /(?:^|[\s(“"'‘])(?:mr|mrs|ms|dr|prof|st|vs|etc|approx|incl|e\.g|i\.e|[ap]\.m|[a-hj-z]|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec)\.\s*$/i
/** … and behind these none where a number follows. */
const numbering = /(?:^|\s)(?:no|nr)\.\s*$/i
/** Behind these a sentence may end all the same, where the next word begins with a capital that is no name by itself. */
const mayEnd = /(?:[ap]\.m|etc)\.\s*$/i

/**
 * Sentences with where they begin (Unicode's rules, UAX 29); points of abbreviations and of numbers end none, and what is
 * no text parts two.
 */
export function sentences(text: string): { from: number; sentence: string }[] {
  const found: { from: number; sentence: string }[] = []
  let from = 0
  for (const piece of text.split(HOLE)) {
    let open: { from: number; sentence: string } | null = null
    for (const { segment, index } of segmenter.segment(piece)) {
      if (open && goesOn(open.sentence, segment)) open.sentence += segment
      else {
        open = { from: from + index, sentence: segment }
        found.push(open)
      }
    }
    from += piece.length + HOLE.length
  }
  return found
    .map((one) => ({ ...one, sentence: one.sentence.trimEnd() }))
    .filter(({ sentence }) => /[\p{L}\p{N}]/u.test(sentence))
}

function goesOn(sentence: string, next: string): boolean {
  if (numbering.test(sentence)) return /^\d/.test(next)
  if (!abbreviated.test(sentence)) return false
  return !mayEnd.test(sentence) || !/^\p{Lu}/u.test(next)
}

export function wordCount(text: string): number {
  return text.match(/[\p{L}\p{N}][\p{L}\p{N}'’-]*/gu)?.length ?? 0
}

function withoutOverlap(changes: Change[]): Change[] {
  let end = -1
  return changes
    .toSorted((a, b) => a.from - b.from || b.to - a.to)
    .filter((change) => {
      if (change.from < end) return false
      end = change.to
      return true
    })
}

/** Every paragraph's inline nodes, lists gone through. */
function paragraphsOf({ content }: RichText): Inline[][] {
  const walk = (nodes: readonly TextNode[]): Inline[][] =>
    nodes.flatMap((node) =>
      node.type === 'paragraph'
        ? [node.content ?? []]
        : node.content.flatMap((item) => walk(item.content)),
    )
  return walk(content)
}

function plain(inlines: readonly Inline[]): string {
  return inlines.map((node) => (node.type === 'text' ? node.text : HOLE)).join('')
}

/** The nodes with a range said otherwise; the new words look as the first of the old ones did. */
function replaced(inlines: readonly Inline[], { from, to, after }: Change): Inline[] {
  let at = 0
  let written = false
  return inlines.flatMap((node): Inline[] => {
    const length = node.type === 'text' ? node.text.length : 1
    const [begin, end] = [at, (at += length)]
    if (node.type !== 'text' || end <= from || begin >= to) return [node]
    const here = written ? '' : after
    written = true
    const text = node.text.slice(0, Math.max(0, from - begin)) + here + node.text.slice(to - begin)
    return text ? [{ ...node, text }] : []
  })
}

function likeFirst(phrase: string, after: string): string {
  return isUpper(phrase) ? capital(after) : after
}

function isUpper(text: string): boolean {
  const first = text.charAt(0)
  return first !== first.toLowerCase()
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

function wordsBefore(text: string, at: number): string {
  return (/(?:\S+\s+){0,3}\S*$/.exec(text.slice(0, at))?.[0] ?? '').replaceAll(HOLE, '…')
}

function wordsAfter(text: string, at: number): string {
  return (/^\S*(?:\s+\S+){0,3}/.exec(text.slice(at))?.[0] ?? '').replaceAll(HOLE, '…')
}
