/**
 * A letter as bytes: document → MJML → HTML with inlined styles, plain text from the document, and
 * both compiled once to static pieces and slots, so that a recipient costs a merge and not a render.
 */
export { compileLetter, letterToMjml, mjmlToHtml } from './compile'
export type { CompiledLetter } from './compile'
export { packLetter, unpackLetter } from './pack'
export type { PackedLetter } from './pack'
export { letterSource } from './source'
export { asDrawnBy, renderings } from './renderings'
export { cleanHtml } from './raw-html'
export { fillFor, mergeLetter, personContext, shownFor } from './merge'
export type { MergedLetter } from './merge'
export type { FooterWords, LetterFrame } from './frame'
export { picksContext, picksIn } from './picked'
export type { PickedProduct } from './picked'
export { escapeHtml } from './escape'
