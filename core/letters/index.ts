/**
 * The letter: its document (rows, columns, blocks, rich text), the changes one can make to it,
 * and fill-ins. Immutable data; every change gives a new document.
 * Turning it into HTML and text is behind a door of its own, `rendering/`, since only servers do that.
 */
export type {
  Block,
  BlockKind,
  Column,
  Heading,
  TextBlock,
  Picture,
  Button,
  Divider,
  Space,
  Footer,
  Letter,
  LetterDocument,
  Row,
} from './document'
export type { RichText, TextNode, Inline, Mark } from './rich-text'
export { plainInline, isEmptyText } from './rich-text'
export { blocksOf, findBlock, emptyLetter, newBlock, blockKinds } from './document'
export { insertRow, removeBlock, moveRow, updateBlock, duplicateRow } from './changes'
export { cleanDocument, safeLink } from './clean'
export {
  fillInsOf,
  readFillIn,
  writeFillIn,
  readTemplateText,
  fillInSyntaxProblem,
} from './fill-ins'
export type { FillIn, FillInContext } from './fill-ins'
export { defaultLetterhead } from './letterhead'
export type { Letterhead } from './letterhead'
export { linksOf } from './links'
export type { LetterLink } from './links'
export { startingLetter } from './starting-letter'
