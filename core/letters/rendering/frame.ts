import type { LetterDocument } from '../document'
import type { Letterhead } from '../letterhead'
import { conditionsOf, type Condition, type Conditions } from '../shown-to'
import type { CompiledFill } from './compile'
import { escapeHtml } from './escape'
import { cleanHtml } from './raw-html'
import { slotMark } from './slots'

/** What the rendering of a letter needs to know besides the letter. */
export interface LetterFrame {
  letterhead: Letterhead
  /** Lines of the sender's postal address, for the footer. */
  postalAddress: string
  /** The name readers see. */
  senderName: string
  listName: string
  footer: FooterWords
  /** Public address of this installation, for pictures of its own. */
  url: string
  /** How high a picture is for its width, by its source; of pictures that are not known nothing is. */
  shapes?: Readonly<Record<string, number>>
  /** Whether each block carries its id, as a class, to be found by where it is drawn. */
  named?: boolean
}

/** What the footer of a letter says, in the language of those who get it (ISO 639-1). */
export interface FooterWords {
  language: string
  unsubscribe: string
  /** The link to the reader's own page; null in letters from before there was one. */
  yourPage: string | null
  /** Whether readers who speak another language are told it in theirs; the words above are for all others. */
  byReader?: boolean
}

/** A word of the footer: as it is for everybody, or the mark of what each reader's own language says. */
export function footerWord(
  { footer, fill }: Pick<Rendering, 'footer' | 'fill'>,
  name: 'unsubscribe' | 'yourPage',
  written: (words: string) => string,
): string {
  const words = footer[name] ?? ''
  return footer.byReader ? fill(footerExpression(name, words)) : written(words)
}
const footerExpression = (name: string, words: string) => `footer ${name} ${words}`

/** What a mark of the footer is filled with: the reader's words, as their context has them, or those for everybody. */
export function footerFill(expression: string): CompiledFill | null {
  const found = /^footer (unsubscribe|yourPage) (.*)$/s.exec(expression)
  if (!found) return null
  const [, name, words] = found
  return {
    expression,
    value: ({ footer }) => {
      const theirs = footer?.[name!]
      return typeof theirs === 'string' ? theirs : words!
    },
  }
}

/** The same while one letter is rendered: slots, links and conditions get their numbers here. */
export interface Rendering extends LetterFrame {
  document: LetterDocument
  /** The mark of a fill-in. */
  fill: (expression: string) => string
  /** The mark of the next link, in reading order. */
  nextLink: () => string
  /** The mark of a link that is the reader's own, by the fill-in that says it. */
  ownLink: (expression: string) => string
  /** What is for some readers only, between the marks that say for whom. */
  forSome: (id: string, content: string) => string
  /** The block's text as HTML; where it is edited in place, the place for it. */
  written: (html: () => string) => string
  /** Plain words by the name that they have in their block; where they are edited in place, the place for them. */
  typed: (name: string, words: string, mayBeMissing?: boolean) => string
  /** An author's own HTML, cleaned; its links lead where `link` says. */
  ownHtml: (html: string, link: (url: string) => string) => string
}

/** Numbers what differs per reader: fill-ins by their expression, conditions by themselves. */
export function numbering(document: LetterDocument) {
  const conditions = conditionsOf(document)
  const expressions: string[] = []
  const kept: Condition[] = []
  const numberOf = (expression: string) => {
    const found = expressions.indexOf(expression)
    return found >= 0 ? found : expressions.push(expression) - 1
  }
  return {
    rules: conditions.rules,
    expressions,
    conditions: kept,
    fill: (expression: string) => slotMark.fill(numberOf(expression)),
    ownLink: (expression: string) => slotMark.own(numberOf(expression)),
    forSome: (id: string, content: string) => marked(conditions, kept, id, content),
  }
}

/** A rendering whose links are counted from the first on. */
export function rendering(
  document: LetterDocument,
  frame: LetterFrame,
  { fill, ownLink, forSome }: Pick<Rendering, 'fill' | 'ownLink' | 'forSome'>,
): Rendering {
  let links = 0
  return {
    ...frame,
    document,
    fill,
    ownLink,
    forSome,
    nextLink: () => slotMark.link(links++),
    written: (html) => html(),
    typed: (_, words) => escapeHtml(words),
    ownHtml: cleanHtml,
  }
}

function marked(conditions: Conditions, kept: Condition[], id: string, content: string): string {
  const condition = conditions.of.get(id)
  if (!condition) return content
  const same = (one: Condition) =>
    one.holds === condition.holds && one.of.join() === condition.of.join()
  const found = kept.findIndex(same)
  const n = found >= 0 ? found : kept.push(condition) - 1
  return `${slotMark.begin(n)}${content}${slotMark.end}`
}
