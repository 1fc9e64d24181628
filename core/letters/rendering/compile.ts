import mjml2html from 'mjml'
import type { MessageParts } from '../../delivery'
import type { Rule } from '../../segments'
import { compileFillIn, readTemplateText, type FillInContext } from '../fill-ins'
import { linksOf, type LetterLink } from '../links'
import type { Letter } from '../document'
import type { Condition } from '../shown-to'
import { escapeHtml } from './escape'
import { footerFill, numbering, rendering, type LetterFrame } from './frame'
import { documentToText } from './plain-text'
import { pickFill } from './picked'
import { cutAtSlots } from './slots'
import { documentToMjml } from './to-mjml'

export interface CompiledFill {
  expression: string
  value: (context: FillInContext) => string
  /** The number of the link that it leads by, where it is a link of the reader's own. */
  link?: (context: FillInContext) => number | undefined
}

/** A letter ready to be merged: pieces with slots, what fills them, for whom, and the links. */
export interface CompiledLetter {
  parts: MessageParts
  fills: CompiledFill[]
  /** The rules that decide who gets what, and the conditions made of them. */
  rules: Rule[]
  conditions: Condition[]
  links: LetterLink[]
  /** Bytes of the HTML before anything is filled in or left out. */
  weight: number
}

/** Compiles a letter once for all its recipients. Throws where it can't be rendered. */
export async function compileLetter(letter: Letter, frame: LetterFrame): Promise<CompiledLetter> {
  const { mjml, numbers } = letterToMjml(letter, frame)
  const html = await mjmlToHtml(mjml)
  const text = documentToText(letter.document, rendering(letter.document, frame, numbers))
  const subject = templateText(letter.subject, (plain) => plain, numbers.fill)
  return {
    parts: { subject: cutAtSlots(subject), html: cutAtSlots(html), text: cutAtSlots(text) },
    fills: numbers.expressions.map(fillOf),
    rules: numbers.rules,
    conditions: numbers.conditions,
    links: linksOf(letter.document),
    weight: Buffer.byteLength(html),
  }
}

/** What a slot is filled with. Throws where it can't be read. */
export function fillOf(expression: string): CompiledFill {
  return (
    pickFill(expression) ??
    footerFill(expression) ?? { expression, value: compileFillIn(expression) }
  )
}

/** The letter as MJML with marks for its slots, and what their numbers mean. */
export function letterToMjml(letter: Letter, frame: LetterFrame) {
  const numbers = numbering(letter.document)
  const title = letter.subject.replace(/\{\{[^{}]*\}\}/g, '').trim()
  const previewText = templateText(letter.previewText, escapeHtml, numbers.fill)
  const whole = rendering(letter.document, frame, numbers)
  return { mjml: documentToMjml(letter.document, whole, title, previewText), numbers }
}

export async function mjmlToHtml(mjml: string): Promise<string> {
  const { html, errors } = await mjml2html(mjml, { validationLevel: 'soft' })
  if (errors.length)
    throw new Error(`The letter could not be rendered: ${errors[0]!.formattedMessage}`)
  // Not a height that HTML knows; the style beside it says the same.
  return html.replaceAll(' height="auto"', '')
}

function templateText(
  text: string,
  write: (plain: string) => string,
  fill: (expression: string) => string,
): string {
  return readTemplateText(text)
    .map((piece) => (typeof piece === 'string' ? write(piece) : fill(piece.expression)))
    .join('')
}
