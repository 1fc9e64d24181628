/** Spelling by the dictionaries of British and American English; a word is right where either knows it. */
import american from 'dictionary-en'
import british from 'dictionary-en-gb'
import nspell from 'nspell'

/** Words with as many suggestions as are worth reading. */
const MOST_WORDS = 20
const MOST_SUGGESTIONS = 3
/** Where more of the different words are unknown, the text is in another language. */
const FOREIGN = 1 / 3

/**
 * The words of some texts that no dictionary knows, each as it is written, with what it might be. `own`: the account's
 * words, in lower case. None where the texts are hardly English. The first call loads the dictionaries (about 0.5 s).
 */
export function misspelt(
  texts: readonly string[],
  own: ReadonlySet<string>,
): { word: string; suggestions: string[] }[] {
  const words = new Set(texts.flatMap(wordsToCheck))
  const unknown = [...words].filter((word) => !own.has(word.toLowerCase()) && !isRight(word))
  if (words.size >= 6 && unknown.length > FOREIGN * words.size) return []
  return unknown.slice(0, MOST_WORDS).map((word) => ({ word, suggestions: suggestionsFor(word) }))
}

/** Looking for what a word might be takes a tenth of a second, and the same letter is looked at again and again. */
const suggested = new Map<string, string[]>()
function suggestionsFor(word: string): string[] {
  if (suggested.size > 5_000) suggested.clear()
  const known = suggested.get(word) ?? dictionaries()[0]!.suggest(word).slice(0, MOST_SUGGESTIONS)
  suggested.set(word, known)
  return known
}

/**
 * Words of a text that may be misspelt: of three letters and more, no addresses, no capitals, and no names, which is
 * what a capital in the middle of a sentence stands for.
 */
export function wordsToCheck(text: string): string[] {
  const bare = text.replace(/\S*(?:@|:\/\/|www\.|\w\.\w)\S*/g, ' ')
  return [...bare.matchAll(/[\p{L}\p{N}][\p{L}\p{N}’'-]*/gu)].flatMap(({ 0: found, index }) => {
    const word = found.replace(/[’'-]+$/, '').replaceAll('’', "'")
    if (word.length < 3 || /\p{N}/u.test(word) || word === word.toUpperCase()) return []
    const begins = /(?:^|[.!?:…]["”’)]*\s+)["“‘(]*$/.test(bare.slice(0, index))
    if (/^\p{Lu}/u.test(word) && !begins) return []
    return word.split('-').filter((part) => part.length >= 3)
  })
}

function isRight(word: string): boolean {
  return dictionaries().some(
    (one) => one.correct(word) || one.correct(word.charAt(0).toLowerCase() + word.slice(1)),
  )
}

let loaded: ReturnType<typeof nspell>[] | undefined
const dictionaries = () =>
  (loaded ??= [british, american].map(({ aff, dic }) =>
    nspell(Buffer.from(aff).toString(), Buffer.from(dic).toString()),
  ))
