import type { Mark, ProofFacts } from '../mark'
import { textsOf } from '../texts'

/** Words that no dictionary knows, where each stands first. */
export function spelling({ letter, misspelt }: ProofFacts): Mark[] {
  const texts = textsOf(letter)
  return (misspelt ?? []).flatMap(({ word, suggestions }): Mark[] => {
    const plain = word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replaceAll("'", "['’]")
    const found = new RegExp(`(?<![\\p{L}\\p{N}])${plain}(?![\\p{L}\\p{N}])`, 'u')
    const place = texts.find(({ text }) => found.test(text))
    if (!place) return []
    const { blockId, where } = place
    return [
      {
        check: 'spelling',
        level: where === 'subject' ? 'caution' : 'note',
        blockId,
        title: `“${word}” is in no dictionary`,
        detail: `It stands in the ${where}.${suggestions.length ? '' : ' Nothing like it is known.'}`,
        repairs: [
          ...suggestions.map((to) => ({
            words: to,
            change: { is: 'text' as const, from: word, to },
          })),
          { words: 'It is our word', change: { is: 'own-word', word } },
        ],
      },
    ]
  })
}
