import type { Mark, ProofFacts } from '../mark'
import { textsOf } from '../texts'

/** The same word twice, but for those that are said twice on purpose. */
const twice = /(?<![\p{L}'’-])(\p{L}{2,})\s+\1(?![\p{L}'’-])/giu
const onPurpose = new Set(['that', 'had', 'very', 'bye', 'ha', 'no', 'so', 'knock'])

/** Words written twice, capitals that shout, and more than one exclamation mark. */
export function wording({ letter }: ProofFacts): Mark[] {
  const marks: Mark[] = []
  for (const { blockId, where, text } of textsOf(letter)) {
    const base = { check: 'wording', blockId }
    for (const { 0: words, 1: word } of text.matchAll(twice))
      if (!onPurpose.has(word!.toLowerCase()))
        marks.push({
          ...base,
          level: 'caution',
          title: `“${words}”`,
          detail: `A word stands twice in the ${where}.`,
        })
    if (shouts(text))
      marks.push({
        ...base,
        level: where === 'subject' ? 'caution' : 'note',
        title: `Capitals in the ${where}`,
        detail: 'Whole words in capitals read as shouting, to people and to filters.',
      })
    const calls = text.match(/!/g)?.length ?? 0
    if (calls > 1)
      marks.push({
        ...base,
        level: where === 'subject' ? 'caution' : 'note',
        title: `${calls} exclamation marks in the ${where}`,
        detail: 'One is enough, if any. Filters count them, too.',
      })
  }
  return marks
}

/** Two words of four and more letters in capitals, and they are a third of all. */
function shouts(text: string): boolean {
  const words = text.match(/\p{L}{4,}/gu) ?? []
  const loud = words.filter((word) => word === word.toUpperCase())
  return loud.length >= 2 && loud.length * 3 >= words.length
}
