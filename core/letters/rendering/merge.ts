import type { Fill, Slot } from '../../delivery'
import { showFieldValue, type FieldValue } from '../../people'
import type { FillInContext } from '../fill-ins'
import { isShown } from '../shown-to'
import type { CompiledLetter } from './compile'
import { escapeHtml } from './escape'
import type { PickedProduct } from './picked'

/** A letter as one person reads it. */
export interface MergedLetter {
  subject: string
  html: string
  text: string
}

/** The values that fill-ins name, for one person; `did` is what they name of what the person did. */
export function personContext(
  person: { address: string; values: Record<string, FieldValue> },
  about: { list: string; sender: string; mailing: string },
  picks: Record<string, PickedProduct> = {},
  did: FillInContext = {},
): FillInContext {
  const values = Object.fromEntries(
    Object.entries(person.values).map(([key, value]) => [key, showFieldValue(value)]),
  )
  return {
    ...did,
    person: { ...values, address: person.address },
    list: { name: about.list },
    sender: { name: about.sender },
    mailing: { name: about.mailing },
    picks: { ...picks },
  }
}

/** The texts of a letter's fill-ins for one reader, escaped for HTML and plain. */
export function fillFor(letter: CompiledLetter, context: FillInContext): Fill[] {
  return letter.fills.map(({ value, link }) => {
    const text = value(context)
    const fill = { html: escapeHtml(text), text }
    const no = link?.(context)
    return no === undefined ? fill : { ...fill, link: no }
  })
}

/** Which of a letter's conditions hold for somebody for whom its rules are so. */
export function shownFor(letter: CompiledLetter, truth: readonly boolean[]): boolean[] {
  return letter.conditions.map((condition) => isShown(condition, truth))
}

/** The whole letter for one reader, for looking at: links lead straight where they lead. */
export function mergeLetter(
  letter: CompiledLetter,
  context: FillInContext,
  truth: readonly boolean[] = [],
): MergedLetter {
  const fills = fillFor(letter, context)
  const shown = shownFor(letter, truth)
  const merge = (pieces: (string | Slot)[], as: 'html' | 'text'): string =>
    pieces
      .map((piece) => {
        if (typeof piece === 'string') return piece
        if ('when' in piece) return shown[piece.when] ? merge(piece.pieces, as) : ''
        if ('fill' in piece) return fills[piece.fill]![as]
        if ('own' in piece) return fills[piece.own]![as]
        if ('link' in piece)
          return as === 'html'
            ? escapeHtml(letter.links[piece.link]!.url)
            : letter.links[piece.link]!.url
        return 'open' in piece ? 'data:,' : '#leave'
      })
      .join('')
  const { subject, html, text } = letter.parts
  return { subject: merge(subject, 'text'), html: merge(html, 'html'), text: merge(text, 'text') }
}
