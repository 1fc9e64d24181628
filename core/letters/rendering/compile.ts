import mjml2html from 'mjml'
import type { MessageParts } from '../../delivery/message'
import type { Letter } from '../document'
import { compileFillIn, readTemplateText, type FillInContext } from '../fill-ins'
import { linksOf, type LetterLink } from '../links'
import { documentToText } from './plain-text'
import { cutAtSlots, slotMark } from './slots'
import { documentToMjml, escapeHtml, type RenderingFrame } from './to-mjml'

/** A letter ready to be merged: pieces with slots, the values of the slots as functions, and the links. */
export interface CompiledLetter {
  parts: MessageParts
  fills: { expression: string; value: (context: FillInContext) => string }[]
  links: LetterLink[]
  /** Bytes of the HTML before anything is filled in. */
  weight: number
}

/** Compiles a letter once for all its recipients. */
export async function compileLetter(
  letter: Letter,
  frame: Omit<RenderingFrame, 'slotOf' | 'subject' | 'previewText'>,
): Promise<CompiledLetter> {
  const slots = new Map<string, number>()
  const slotOf = (expression: string) => {
    if (!slots.has(expression)) slots.set(expression, slots.size)
    return slots.get(expression)!
  }
  const templateText = (text: string, write: (plain: string) => string) =>
    readTemplateText(text)
      .map((piece) =>
        typeof piece === 'string' ? write(piece) : slotMark.fill(slotOf(piece.expression)),
      )
      .join('')
  const subject = templateText(letter.subject, (plain) => plain)
  const whole: RenderingFrame = {
    ...frame,
    slotOf,
    subject: letter.subject.replace(/\{\{[^{}]*\}\}/g, '').trim(),
    previewText: templateText(letter.previewText, escapeHtml),
  }
  const { html, errors } = await mjml2html(documentToMjml(letter.document, whole), {
    validationLevel: 'soft',
  })
  if (errors.length)
    throw new Error(`The letter could not be rendered: ${errors[0]!.formattedMessage}`)
  const text = documentToText(letter.document, whole)
  return {
    parts: { subject: cutAtSlots(subject), html: cutAtSlots(html), text: cutAtSlots(text) },
    fills: [...slots.keys()].map((expression) => ({
      expression,
      value: compileFillIn(expression),
    })),
    links: linksOf(letter.document),
    weight: Buffer.byteLength(html),
  }
}
