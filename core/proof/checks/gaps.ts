import {
  fillInsOf,
  fillInSyntaxProblem,
  blocksOf,
  plainInline,
  type FillIn,
  type Letter,
} from '../../letters'
import { slips } from '../../people'
import type { Mark, ProofFacts } from '../mark'
import type { Repair } from '../repair'

/** Fill-ins that would leave a gap: unknown names, and no fallback where some readers have no value. */
export function gaps({ letter, gaps: emptyFor, audienceCount, names }: ProofFacts): Mark[] {
  const marks: Mark[] = []
  const seen = new Set<string>()
  for (const { fillIn, blockId } of fillInsOf(letter)) {
    const once = `${blockId}|${fillIn.expression}`
    if (seen.has(once)) continue
    seen.add(once)
    const base = { check: 'gaps', level: 'blocker' as const, blockId }
    const problem = fillInSyntaxProblem(fillIn.expression)
    if (problem) {
      marks.push({
        ...base,
        title: 'A fill-in can’t be read',
        detail: `{{ ${fillIn.expression} }}: ${problem}`,
      })
      continue
    }
    const empty = emptyFor.get(fillIn.path)
    if (empty === undefined)
      marks.push({
        ...base,
        title: `Nothing is called “${fillIn.path}”`,
        detail: 'Remove this fill-in, or choose one of the fields.',
        repairs: names
          .filter((name) => isNear(name, fillIn.path))
          .map((name) => ({
            words: `Make it ${nameOf(name)}`,
            change: {
              is: 'fill-in',
              from: fillIn.expression,
              to: fillIn.expression.replace(fillIn.path, name),
            },
          })),
      })
    else if (empty > 0 && fillIn.fallback === null)
      marks.push({
        ...base,
        title: `${empty.toLocaleString('en-GB')} of ${audienceCount.toLocaleString('en-GB')} people would read “${excerpt(letter, blockId, fillIn.expression)}”`,
        detail: `${nameOf(fillIn.path)} is empty for them. Give the fill-in a fallback.`,
        ...(fillIn.path.startsWith('person.') ? { readers: { lacks: fillIn.path.slice(7) } } : {}),
        repairs: [withFallback(fillIn)],
      })
  }
  return marks
}

/** What they would read: the words around the gap. */
function excerpt(letter: Letter, blockId: string | null, expression: string): string {
  const gap = '\u0000'
  const fill = (other: string) => (other === expression ? gap : '…')
  const block = blocksOf(letter.document).find(({ id }) => id === blockId)
  const whole =
    block && 'text' in block
      ? plainInline(block.text, fill)
      : ([letter.subject, letter.previewText]
          .map((text) => text.replace(/\{\{\s*([^{}]*?)\s*\}\}/g, (_, e: string) => fill(e)))
          .find((text) => text.includes(gap)) ?? gap)
  const at = whole.indexOf(gap)
  const before = /(\S+\s+){0,4}\S*$/.exec(whole.slice(0, at))![0]
  const after = /^\S*(\s+\S+){0,2}/.exec(whole.slice(at + 1))![0]
  return `${before}${after}`.replaceAll(gap, '').trimStart()
}

/** A first name is commonly stood for by "there"; anything else by nothing, which reads better than a gap unseen. */
function withFallback({ expression, path }: FillIn): Repair {
  const fallback = path === 'person.first_name' ? 'there' : ''
  return {
    words: fallback ? `Say “${fallback}” to them` : 'Say nothing there',
    change: { is: 'fill-in', from: expression, to: `${expression} | default: "${fallback}"` },
  }
}

/** A slip or two of the pen away, or the same but for what stands between the words. */
function isNear(name: string, path: string): boolean {
  const bare = (text: string) => text.toLowerCase().replace(/[^a-z0-9.]/g, '')
  const limit = name.length > 11 ? 3 : 2
  return bare(name) === bare(path) || slips(bare(name), bare(path), limit) < limit
}

function nameOf(path: string): string {
  const words = path.replace(/^(person|event|sign_up)\./, '').replace(/[_.]/g, ' ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}
