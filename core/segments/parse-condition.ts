import { firstWords, kindOf, kinds, type Condition } from './kinds'
import { fieldAt } from './kinds/field'
import type { Phrase } from './kinds/kind'
import type { Names } from './names'
import { fold } from './values/fold'
import type { TokenReader } from './values/token-reader'

/** A condition: on a field that is named here, or the kind one of whose phrases stands here. */
export function parseCondition(r: TokenReader, names: Names): Condition {
  const field = fieldAt(r, names, firstWords)
  if (field) return field
  const phrase = phrases.find(({ words }) => r.areWords(...words))
  if (phrase) {
    r.next += phrase.words.length
    return phrase.read(r, names)
  }
  if (r.take('never')) return parseNever(r, names)
  throw faultAt(r)
}

/** All beginnings there are, longer ones before those they begin with. */
const phrases = (Object.values(kinds) as { phrases: readonly Phrase<Condition>[] }[])
  .flatMap((kind) => kind.phrases)
  .map((phrase) => ({ ...phrase, words: phrase.begins.split(' ') }))
  .sort((a, b) => b.words.length - a.words.length)

/** "never bought …", "never opened …": none of them. */
function parseNever(r: TokenReader, names: Names): Condition {
  const at = r.next
  const found = parseCondition(r, names)
  const { never } = kindOf(found)
  if (!never)
    throw r.fault('“never” stands before opened, clicked, bought, did, or in sequence.', at)
  const not = never(found)
  if (!not) throw r.fault('“never” leaves nothing to count.', at)
  return not
}

/** What is wrong where no condition begins: which word had to follow, where one began. */
function faultAt(r: TokenReader) {
  if (r.token.kind === 'end') return r.fault('Something is missing at the end.')
  const first = r.token.kind === 'word' ? fold(r.token.text) : ''
  const begun = phrases.filter(({ words }) => words[0] === first)
  if (begun.length === 0)
    return r.fault(`Nothing is known by “${r.token.text}”: no condition and no field begins so.`)
  const behind = (words: string[]) => {
    const at = words.findIndex((_, i) => !r.areWords(...words.slice(0, i + 1)))
    return at
  }
  const far = Math.max(...begun.map(({ words }) => behind(words)))
  const missing = begun
    .filter(({ words }) => behind(words) === far)
    .map(({ words }) => `“${words[far]}”`)
  return r.fault(`${[...new Set(missing)].join(' or ')} is missing here.`, r.next + far)
}
