import type { Mark, ProofFacts } from '../mark'
import type { Repair } from '../repair'
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
          repairs: [{ words: 'Say it once', change: { is: 'text', from: words, to: word! } }],
        })
    if (shouts(text))
      marks.push({
        ...base,
        level: where === 'subject' ? 'caution' : 'note',
        title: `Capitals in the ${where}`,
        detail: 'Whole words in capitals read as shouting, to people and to filters.',
        repairs: [quietly(text)],
      })
    const calls = text.match(/!/g)?.length ?? 0
    if (calls > 1)
      marks.push({
        ...base,
        level: where === 'subject' ? 'caution' : 'note',
        title: `${calls} exclamation marks in the ${where}`,
        detail: 'One is enough, if any. Filters count them, too.',
        repairs: [
          {
            words: 'Keep the last',
            change: { is: 'text', from: text, to: lastCall(text), part: true },
          },
        ],
      })
  }
  return marks
}

/** Words in capitals as they are written otherwise: small but for the first letter of the text. */
function quietly(text: string): Repair {
  const small = text.replace(/\p{Lu}{4,}/gu, (word, at: number) =>
    text.slice(0, at).trim() === ''
      ? word.charAt(0) + word.slice(1).toLowerCase()
      : word.toLowerCase(),
  )
  return { words: 'Say it quietly', change: { is: 'text', from: text, to: small, part: true } }
}

/** All exclamation marks but the last become full stops. */
function lastCall(text: string): string {
  const last = text.lastIndexOf('!')
  const before = text.slice(0, last).replace(/!+$/, '')
  return before.replace(/!+/g, '.') + text.slice(last)
}

/** Two words of four and more letters in capitals, and they are a third of all. */
function shouts(text: string): boolean {
  const words = text.match(/\p{L}{4,}/gu) ?? []
  const loud = words.filter((word) => word === word.toUpperCase())
  return loud.length >= 2 && loud.length * 3 >= words.length
}
