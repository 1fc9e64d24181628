import { blocksOf, linksOf, plainInline } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Words too common to promise anything. */
const common = new Set(
  'about after again all also and are been before but can could did does each every for from get has have here his her how into its just last let like made make many more most much new next not now off only open our out over read see she should some than that the their them then there these they this those three time today two until very was week were what when where which who will with would year you your'.split(
    ' ',
  ),
)

/**
 * Whether the first link keeps what the subject promises: a word of the subject stands in the link's own words, in its
 * address, or in the block where it stands or the one before.
 */
export function promise({ letter }: ProofFacts): Mark[] {
  const promised = wordsOf(letter.subject.replace(/\{\{[^{}]*\}\}/g, ' '))
  const blocks = blocksOf(letter.document)
  const first = linksOf(letter.document).find(({ url, blockId }) => {
    const block = blocks.find(({ id }) => id === blockId)
    return /^https?:/i.test(url) && block?.kind !== 'footer' && block?.kind !== 'social'
  })
  if (!first || promised.length === 0) return []
  const at = blocks.findIndex(({ id }) => id === first.blockId)
  const around = blocks
    .slice(Math.max(0, at - 2), at + 1)
    .map((block) =>
      'text' in block ? plainInline(block.text, () => ' ') : 'name' in block ? block.name : '',
    )
  const near = wordsOf([first.words, readable(first.url), ...around].join(' '))
  if (promised.some((word) => near.some((other) => isSameWord(word, other)))) return []
  return [
    {
      check: 'promise',
      level: 'note',
      blockId: first.blockId,
      title: 'The first link does not take up the subject',
      detail: `The subject speaks of “${letter.subject.trim()}”; the first link is “${first.words.trim()}”. Who opened for the subject looks for it first.`,
    },
  ]
}

function readable(url: string): string {
  return URL.canParse(url) ? new URL(url).pathname : url
}

/** Words that say something. */
function wordsOf(text: string): string[] {
  return (text.toLowerCase().match(/\p{L}{3,}/gu) ?? []).filter((word) => !common.has(word))
}

/** The same but for an ending: "kite" and "kites", "fly" and "flying". */
function isSameWord(a: string, b: string): boolean {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a]
  return long.startsWith(short) && long.length - short.length <= 3
}
