import { blocksOf, linksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'
import { textsOf } from '../texts'

/**
 * Words and shapes that filters hold against a letter, with what each adds. The scores are our own: weak signs that
 * only tell something together. A sign counts once, twice as much in the subject.
 */
const signs: readonly { about: string; score: number; pattern: RegExp }[] = [
  {
    about: 'free of charge, said loudly',
    score: 1,
    pattern: /\b(100% free|free!|absolutely free|free gift)/i,
  },
  {
    about: 'money for nothing',
    score: 2,
    pattern: /\b(earn (extra|easy|big)|make money|cash bonus|extra cash|double your)/i,
  },
  {
    about: 'winning something',
    score: 1.5,
    pattern:
      /\b(you(’|')ve won|you have won|winner!|claim your (prize|reward|gift)|congratulations!)/i,
  },
  {
    about: 'haste',
    score: 1,
    pattern:
      /\b(act now|urgent|last chance|only today|expires (today|tonight)|don(’|')t miss|limited time)/i,
  },
  {
    about: 'promises without risk',
    score: 1,
    pattern:
      /\b(risk[- ]free|no risk|guaranteed|no obligation|no strings attached|satisfaction guaranteed)/i,
  },
  {
    about: 'a price shouted',
    score: 1,
    pattern: /(\$|€|£){2,}|\b(lowest|best) price\b|\d{2,3}% off!/i,
  },
  {
    about: 'health and weight',
    score: 1.5,
    pattern: /\b(lose weight|miracle|cure[sd]?\b|anti-?ageing|weight loss)/i,
  },
  {
    about: 'credit and debts',
    score: 1.5,
    pattern: /\b(credit score|consolidate|debt|pre-?approved|mortgage rate)/i,
  },
  {
    about: 'asking to be trusted',
    score: 1,
    pattern: /\b(this is not spam|not a scam|dear friend|no catch)\b/i,
  },
  { about: 'letters drawn apart', score: 1.5, pattern: /\b(\p{L}[ .*_-]){4,}\p{L}\b/iu },
  { about: 'many exclamation or question marks in a row', score: 1, pattern: /[!?]{3,}/ },
  { about: 'an answer or a forward that is none', score: 2, pattern: /^(re|fwd?|aw|wg)\s*:/i },
]
/** From these sums on it is worth telling, and it has to be mended: so many points alone put a letter into junk. */
const NOTE = 1
const LIMIT = 4
const shortened =
  /(?<![\w.-])(bit\.ly|t\.co|goo\.gl|tinyurl\.com|ow\.ly|is\.gd|buff\.ly|rb\.gy)\/\w+/i
/** An address of the web that is numbers (IPv4, IPv6) in place of a name. */
const numeric = /\bhttps?:\/\/(\d{1,3}(\.\d{1,3}){3}|\[[0-9a-f:.]+\])(?![\w.-])/i

/** Words and shapes that filters score, and links and pictures that they take for a disguise. */
export function filters({ letter }: ProofFacts): Mark[] {
  const found = new Map<string, { score: number; words: string; blockId: string | null }>()
  for (const { text, where, blockId } of textsOf(letter))
    for (const { about, score, pattern } of signs) {
      // Answers and forwards are told by how a subject begins.
      if (pattern.source.startsWith('^') && where !== 'subject') continue
      const words = pattern.exec(text)?.[0]
      if (words && !found.has(about))
        found.set(about, {
          score: where === 'subject' ? 2 * score : score,
          words: words.trim(),
          blockId,
        })
    }
  const sum = [...found.values()].reduce((total, { score }) => total + score, 0)
  const marks: Mark[] = []
  if (sum >= NOTE)
    marks.push({
      check: 'filters',
      level: sum >= LIMIT ? 'blocker' : 'note',
      blockId: [...found.values()][0]!.blockId,
      title: `Filters may hold ${sum} points against the words`,
      detail: `${[...found]
        .map(([about, { words, score }]) => `${about}: “${words}” (${score})`)
        .join('; ')}. From ${LIMIT} on it has to be said otherwise.`,
    })
  // What a reader can copy out of a text is looked at as a link is.
  const addresses = [
    ...linksOf(letter.document).map(({ url, blockId }) => ({ text: url, blockId })),
    ...textsOf(letter),
  ]
  const disguises = [
    ['A shortened link', shortened, 'hides where it leads'],
    ['An address of numbers', numeric, 'is a place without a name'],
  ] as const
  for (const [title, pattern, why] of disguises) {
    const one = addresses.find(({ text }) => pattern.test(text))
    if (one)
      marks.push({
        check: 'filters',
        level: 'blocker',
        blockId: one.blockId,
        title,
        detail: `${pattern.exec(one.text)![0]} ${why}; filters block such addresses. Give the whole one, with its name.`,
      })
  }
  const [picture, ...others] = blocksOf(letter.document).filter(
    (block) => block.kind === 'picture' && block.src !== '',
  )
  const text = textsOf(letter).filter(({ blockId }) => blockId !== null)
  if (picture && !others.length && text.length <= 1)
    marks.push({
      check: 'filters',
      level: 'note',
      blockId: picture.id,
      title: 'One big picture',
      detail: 'A letter of one picture is what filters know from those who hide their words in it.',
    })
  return marks
}
