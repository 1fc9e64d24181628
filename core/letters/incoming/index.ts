/**
 * Letters from files of others: HTML, MJML, and Satchel's own JSON. What can't be understood stays as a block of
 * HTML, which is cleaned like any other, and is listed.
 */
import { cleanDocument } from '../clean'
import { hasFooter } from '../changes'
import {
  blocksOf,
  newBlock,
  rowOf,
  type Block,
  type Letter,
  type LetterDocument,
  type Row,
} from '../document'
import type { Inline, RichText } from '../rich-text'
import type { Style } from '../style'
import { attribute, colorOf, findAll, parseMarkup, styleOf, textOf, type MarkupNode } from './dom'
import { hiddenPreview, partsFromHtml } from './from-html'
import { partsFromMjml } from './from-mjml'
import { letterInside } from './inside'
import { defaultLook, sharedFonts } from './looks'
import { isRow, type IncomingPart, type Report } from './parts'
import { lineFrom, textFrom } from './rich-text-from'

export { withLetterInside } from './inside'

/** Pasted HTML as rich text: paragraphs, lists, marks and links. */
export function pastedText(html: string): RichText {
  const nodes = bodyOf(parseMarkup(html))
  return { type: 'doc', content: textFrom(nodes) }
}

/** Pasted HTML as one line. */
export function pastedLine(html: string): Inline[] {
  return lineFrom(bodyOf(parseMarkup(html)))
}

function bodyOf(nodes: MarkupNode[]): MarkupNode[] {
  return (findAll(nodes, 'body')[0]?.children as MarkupNode[] | undefined) ?? nodes
}

export interface IncomingLetter {
  letter: Letter
  /** In words, each once: "a form", "mj-carousel". */
  notUnderstood: string[]
}

/**
 * The letter in a file, by what stands in it; else a sentence that says why there is none.
 * @param inline Writes into the elements of HTML what its style sheets say of them.
 */
export function readLetterFile(
  text: string,
  inline: (html: string) => string = (html) => html,
): IncomingLetter | { problem: string } {
  const trimmed = text.replace(/^\uFEFF/, '').trimStart()
  if (trimmed.startsWith('{')) return fromJson(trimmed)
  const inside = letterInside(trimmed)
  const whole = inside === null ? null : fromJson(inside)
  if (whole && !('problem' in whole)) return whole
  const report: Report = { notUnderstood: [] }
  const isMjml = /<mjml[\s>]/i.test(trimmed.slice(0, 5_000))
  if (!isMjml && !/<[a-z!]/i.test(trimmed))
    return { problem: 'This file is neither HTML, MJML nor a letter in JSON.' }
  const nodes = parseMarkup(isMjml ? trimmed : inline(trimmed), isMjml)
  const head = isMjml ? ['mj-title', 'mj-preview'] : ['title']
  const [title, preview] = head.map((name) => findAll(nodes, name)[0])
  const body = isMjml ? nodes : bodyOf(nodes)
  const parts = isMjml ? partsFromMjml(nodes, report) : partsFromHtml(body, report)
  if (!parts.length) return { problem: 'There is nothing in this file that a letter could hold.' }
  const around = findAll(nodes, isMjml ? 'mj-body' : 'body')[0]
  const ground =
    around &&
    colorOf(
      attribute(around, 'background-color') ||
        attribute(around, 'bgcolor') ||
        styleOf(around, 'background-color'),
    )
  const document = letterDocument(parts)
  const fonts = sharedFonts(blocksOf(document))
  return {
    letter: {
      subject: title ? textOf(title) : '',
      previewText: preview ? textOf(preview) : isMjml ? '' : hiddenPreview(body),
      document: {
        ...withoutFonts(document, fonts),
        style: {
          ...defaultLook[isMjml ? 'mjml' : 'html'],
          ...fonts,
          ...(ground ? { ground } : {}),
        },
      },
    },
    notUnderstood: report.notUnderstood,
  }
}

/** A letter as {@link letterSource} writes it: subject, preview text and the document. */
function fromJson(text: string): IncomingLetter | { problem: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return { problem: `This is not JSON: ${(error as Error).message}.` }
  }
  const given = json as Partial<Record<keyof Letter, unknown>>
  const document = cleanDocument(given.document ?? json)
  if (!document) return { problem: 'This JSON is not a letter of Satchel.' }
  const line = (value: unknown) => (typeof value === 'string' ? value.slice(0, 500) : '')
  return {
    letter: {
      subject: line(given.subject),
      previewText: line(given.previewText),
      document: withFooter(withoutLinks(document)),
    },
    notUnderstood: [],
  }
}

/** Stamps are linked by numbers of another account. */
function withoutLinks(document: LetterDocument): LetterDocument {
  return { ...document, rows: document.rows.map(({ stamp: _stamp, ...row }) => row) }
}

/** The letter says these; its blocks need not. */
function withoutFonts(document: LetterDocument, fonts: Style): LetterDocument {
  const plainer = (block: Block): Block => {
    const kept = Object.entries(block.style ?? {}).filter(
      ([key, value]) => fonts[key as keyof Style] !== value,
    )
    const { style: _, ...rest } = block
    return (kept.length ? { ...rest, style: Object.fromEntries(kept) } : rest) as Block
  }
  if (!Object.keys(fonts).length) return document
  const rows = document.rows.map((row) => ({
    ...row,
    columns: row.columns.map((column) => ({ ...column, blocks: column.blocks.map(plainer) })),
  }))
  return { ...document, rows }
}

function letterDocument(parts: readonly IncomingPart[]): LetterDocument {
  const rows = parts.map((part) => (isRow(part) ? part : rowOf(part)))
  const numbered = rows.map((row, r): Row => ({
    ...row,
    id: `r${r + 1}`,
    columns: row.columns.map((column, c) => ({
      ...column,
      blocks: column.blocks.map((block, b) => ({ ...block, id: `b${r + 1}-${c + 1}-${b + 1}` })),
    })),
  }))
  const cleaned = cleanDocument({ version: 1, rows: numbered })!
  return withFooter(cleaned)
}

function withFooter(document: LetterDocument): LetterDocument {
  if (document.rows.some(hasFooter)) return document
  const footer = newBlock('footer', 'footer')
  return { ...document, rows: [...document.rows, rowOf(footer)] }
}
