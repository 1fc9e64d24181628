import { hasFooter } from '../changes'
import { isEmptyText, richText } from '../rich-text'
import { blocksOf, newBlock, rowOf, type Block, type LetterDocument } from '../document'

/** A way to write a letter: what comes after what. */
export interface WritingPlan {
  key: string
  name: string
  about: string
  steps: { kind: 'heading' | 'text' | 'quote' | 'button'; prompt: string }[]
}

/** Prompts are at most this long, so that the proof finds those that are left; characters with their brackets. */
export const LONGEST_PROMPT = 42

const heading = (prompt: string) => ({ kind: 'heading' as const, prompt })
const text = (prompt: string) => ({ kind: 'text' as const, prompt })
const quote = (prompt: string) => ({ kind: 'quote' as const, prompt })
const button = (prompt: string) => ({ kind: 'button' as const, prompt })

export const writingPlans: WritingPlan[] = [
  {
    key: 'help',
    name: 'From trouble to help',
    about: 'what happened → how it feels → what helps → what it brings → what to do',
    steps: [
      heading('The trouble, in the reader’s words'),
      text('What happened, or happens to them'),
      text('How it feels'),
      text('What helps, and why it does'),
      text('What it brings them'),
      button('The one thing to do'),
    ],
  },
  {
    key: 'proof',
    name: 'Problem, proof, offer',
    about: 'what is in the way → who got past it → what you offer',
    steps: [
      heading('The problem in one line'),
      text('What it costs to leave it as it is'),
      quote('What somebody says who solved it'),
      text('What you offer, and for whom'),
      button('Take the offer'),
    ],
  },
  {
    key: 'story',
    name: 'One story, one point, one link',
    about: 'something that happened → what it shows → where to go',
    steps: [
      text('It was a day like this: who, where, when'),
      text('Then something happened'),
      text('What it shows'),
      button('Where the reader goes from here'),
    ],
  },
  {
    key: 'news',
    name: 'News, from the end',
    about: 'the news → what changes → when → what to do',
    steps: [
      heading('The news, as the reader would tell it'),
      text('What changes for the reader'),
      text('From when, and for whom'),
      text('Why you do it'),
      button('What to do about it'),
    ],
  },
  {
    key: 'invite',
    name: 'Come along',
    about: 'what it will be like → when and where → who comes → take a place',
    steps: [
      heading('What, and on which day'),
      text('What it will be like to be there'),
      text('When, where and how one gets there'),
      text('Who else comes, and what it costs'),
      button('Take a place'),
    ],
  },
  {
    key: 'teach',
    name: 'Teach one thing',
    about: 'what one will be able to do → three steps → the usual mistake → try it',
    steps: [
      heading('How to do one thing'),
      text('What one can do afterwards'),
      text('First step'),
      text('Second step'),
      text('Third step'),
      text('The mistake nearly everybody makes'),
      button('Try it'),
    ],
  },
]

/** The document with a plan's prompts above the footer; what was empty goes. Ids come from `newId`. */
export function withPlan(
  document: LetterDocument,
  { steps }: WritingPlan,
  newId: () => string,
): LetterDocument {
  const prompts = steps.map(({ kind, prompt }) => rowOf(prompted(kind, `[${prompt}]`, newId())))
  const kept = document.rows.filter(
    (row) => hasFooter(row) || !isEmptyRow(row.columns.flatMap(({ blocks }) => blocks)),
  )
  const footer = kept.findIndex(hasFooter)
  const at = footer < 0 ? kept.length : footer
  return { ...document, rows: [...kept.slice(0, at), ...prompts, ...kept.slice(at)] }
}

/** Whether a text is a prompt of a plan or a template, to be written over. */
export function isPrompt(words: string): boolean {
  return /^\[[^\]]+\]$/.test(words.trim())
}

/** How many prompts still stand in a document. */
export function promptsLeft(document: LetterDocument): number {
  return blocksOf(document).filter((block) => isPrompt(wordsOf(block))).length
}

function wordsOf(block: Block): string {
  if (block.kind === 'button') return block.label
  if (!('text' in block)) return ''
  const [only, ...more] = block.text.content
  const inline = !more.length && only?.type === 'paragraph' ? only.content?.[0] : undefined
  return inline?.type === 'text' ? inline.text : ''
}

function prompted(kind: WritingPlan['steps'][number]['kind'], words: string, id: string): Block {
  const block = newBlock(kind, id)
  return {
    ...block,
    ...(kind === 'button' ? { label: words } : { text: richText(words) }),
  } as Block
}

function isEmptyRow(blocks: readonly Block[]): boolean {
  return blocks.every((block) => 'text' in block && isEmptyText(block.text))
}
