/**
 * The letter: its document (rows, columns, blocks, rich text), the changes one can make to it,
 * and fill-ins. Immutable data; every change gives a new document.
 * Turning it into HTML and text is behind a door of its own, `rendering/`, since only servers do that.
 */
export type {
  Align,
  Block,
  BlockKind,
  Button,
  Column,
  Divider,
  Feed,
  FeedEntry,
  Footer,
  Heading,
  HeadingLevel,
  Letter,
  LetterDocument,
  Picks,
  Picture,
  Row,
  Social,
  Space,
  TextBlock,
} from './document'
export type { RichText, TextNode, Inline, Mark } from './rich-text'
export { plainInline, isEmptyText } from './rich-text'
export {
  blockKinds,
  blockNames,
  blocksOf,
  emptyLetter,
  findBlock,
  MOST_COLUMNS,
  MOST_FEED_ENTRIES,
  MOST_PICKS,
  newBlock,
  rowOfBlock,
  shownEntries,
} from './document'
export {
  copyOfRow,
  duplicateBlock,
  duplicateRow,
  footerLast,
  hasFooter,
  insertBlock,
  insertRow,
  moveBlock,
  moveRow,
  moveRows,
  removeBlock,
  removeRow,
  setColumns,
  setShares,
  updateBlock,
  updateRow,
} from './changes'
export type { BlockChange, Place } from './changes'
export { conditionsOf, isShown, mapRules, shownDocument, withoutHidden } from './shown-to'
export type { Condition, Conditions, ShownTo } from './shown-to'
export {
  isAsStamped,
  stampContent,
  stamped,
  stampRow,
  stampsIn,
  withFrameStamps,
  withStamps,
} from './stamps'
export type { StampContent, StampContents } from './stamps'
export { contrast } from './color'
export { joinLetters } from './join'
export { isSame } from './same'
export { compareLetters } from './compare'
export type { LetterChange } from './compare'
export { shareCard, forNobody, webDocument } from './web-version'
export { gapsIn, MOST_RULES, renditionsOf, truthOf } from './renditions'
export { renditionName } from './rendition-name'
export type { Rendition, TruthCount } from './renditions'
export {
  backdropFits,
  backdropPlaces,
  cleanStyle,
  fontStacks,
  headingSize,
  inherited,
  inheritedStyle,
  ranges,
  saidAt,
} from './style'
export type {
  BackdropFit,
  BackdropPlace,
  InheritedStyle,
  Style,
  StyleKey,
  StyleLevel,
} from './style'
export { cleanDocument, cleanRichText, readRow, safeLink } from './clean'
export {
  fillInsOf,
  readFillIn,
  fillInFormats,
  writeFillIn,
  readTemplateText,
  fillInRefusal,
  fillInSyntaxProblem,
} from './fill-ins'
export type { FillIn, FillInContext } from './fill-ins'
export { colorOfGround, groundColor, grounds, isGround } from './roles'
export type { Ground } from './roles'
export { characters } from './characters'
export type { Character } from './characters'
export { artNames, inColors, isArt, shapeOfArt } from './art'
export { defaultLetterhead, readLetterhead } from './letterhead'
export type { Letterhead } from './letterhead'
export { firstLinkOf, FIRST_PRODUCT_LINK, linksOf } from './links'
export type { LetterLink } from './links'
export { startingLetter } from './starting-letter'
export { readFeed } from './feed'
export { inPath, readerValue } from './reader-values'
export type { ReaderValue } from './reader-values'
export type { Comment } from './comment'
export type { Stamp, StampUse } from './stamps'
export type { OwnTemplate } from './own-template'
export type { NamedLetterhead } from './letterhead'
export type { LibraryPicture } from './picture'
export type { FeedState } from './feed'
export type { Renditions, WeighedRendition } from './renditions'
export { sampleLetter } from './sample-letter'
export { isStacked, percentOf, roomIn, SIDE, sidesOf } from './geometry'
