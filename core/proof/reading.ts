import { linksOf, type Letter } from '../letters'
import { sentences, wordCount } from '../letters/wording'
import { HOLE, textsOf } from './texts'

/** How a letter reads: figures, without a verdict. */
export interface Reading {
  words: number
  /** At 230 words a minute. */
  minutes: number
  sentences: number
  /** Words a sentence, on average and at most. */
  average: number
  longest: number
  /** Years of school that it takes (Flesch and Kincaid, 1975), below 0 for the plainest texts; null: too little text to say. */
  grade: number | null
  links: number
  /** How many different places the links lead to. */
  places: number
}

const FEWEST_WORDS = 30

/** Reads the blocks' texts; headings and buttons count as words, not as sentences. */
export function readingOf(letter: Letter): Reading {
  const texts = textsOf(letter).filter(({ blockId }) => blockId !== null)
  const plain = (text: string) => text.replaceAll(HOLE, 'there')
  const words = texts.reduce((sum, { text }) => sum + wordCount(plain(text)), 0)
  const lengths = texts
    .filter(({ where }) => where === 'text' || where === 'quote')
    .flatMap(({ text }) => sentences(plain(text)).map(({ sentence }) => sentence))
    .map((sentence) => ({ words: wordCount(sentence), syllables: syllablesIn(sentence) }))
    .filter((one) => one.words > 0)
  const inSentences = lengths.reduce((sum, one) => sum + one.words, 0)
  const average = lengths.length ? inSentences / lengths.length : 0
  const syllables = lengths.reduce((sum, one) => sum + one.syllables, 0)
  const links = linksOf(letter.document).filter(({ url }) => url !== '')
  return {
    words,
    minutes: words / 230,
    sentences: lengths.length,
    average,
    longest: Math.max(0, ...lengths.map((one) => one.words)),
    grade:
      inSentences >= FEWEST_WORDS
        ? 0.39 * average + 11.8 * (syllables / inSentences) - 15.59
        : null,
    links: links.length,
    places: new Set(links.map(({ url }) => url.replace(/[?#].*$/, '').replace(/\/$/, ''))).size,
  }
}

/** Runs of vowels, a silent e at the end left out; each word has one at least. */
function syllablesIn(text: string): number {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? []
  return words.reduce((sum, word) => {
    const runs = word.replace(/e$/, '').match(/[aeiouyäöüáéíóúàèìòù]+/g)?.length ?? 0
    return sum + Math.max(1, runs)
  }, 0)
}
