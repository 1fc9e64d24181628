import { escapeHtml } from '~~/core/letters/parts'
import type { FooterWords, Rendering } from '~~/core/letters/rendering/frame'
import { readFillIn, type LetterDocument, type Letterhead, type Picks } from '~~/core/letters'
import { placeMark } from './html-tree'

/** What the paper knows of the letter around its blocks. Read when it is needed, so that nothing else waits for it. */
export interface OnPaper {
  document: () => LetterDocument
  letterhead: () => Letterhead
  postalAddress: () => string
  listName: () => string
  footer: () => FooterWords
}

const pickWords: Record<Picks['by'], string> = {
  viewed: 'Looked at',
  together: 'Goes with it',
  best: 'Sells best',
  new: 'New',
  began: 'Began with it',
}
/** In place of a picture that each reader has another of. */
const PICTURE =
  "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='300' height='200'%3E%3Crect width='300' height='200' fill='%23e4e8dc'/%3E%3C/svg%3E"

/** A rendering for the paper: the same HTML as goes out, with places where it is written. `by`: how products are picked. */
export function paperRendering(on: OnPaper, by: () => Picks['by'] | undefined): Rendering {
  const picked = (what: string) =>
    ({ name: pickWords[by() ?? 'best'], price: '£0.00', picture: PICTURE })[what] ?? ''
  return {
    get document() {
      return on.document()
    },
    get letterhead() {
      return on.letterhead()
    },
    get postalAddress() {
      return on.postalAddress()
    },
    get footer() {
      return on.footer()
    },
    get listName() {
      return on.listName()
    },
    senderName: '',
    url: '',
    fill: (expression) => {
      const what = /^picks \S+ \d+ (name|price|picture|url)$/.exec(expression)?.[1]
      return what ? picked(what) : escapeHtml(readFillIn(expression).path.split('.').at(-1)!)
    },
    nextLink: () => '',
    ownLink: () => '',
    forSome: (_, content) => content,
    written: () => placeMark('text'),
    typed: (name, _, mayBeMissing) => placeMark(name, mayBeMissing),
    ownHtml: () => placeMark('html'),
  }
}
