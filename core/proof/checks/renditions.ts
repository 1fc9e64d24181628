import {
  blocksOf,
  conditionsOf,
  gapsIn,
  linksOf,
  MOST_RULES,
  shownDocument,
  truthOf,
  type LetterDocument,
  type Rendition,
} from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Who gets which version: rules that can't be asked, versions without content or links, people left with nothing. */
export function renditions({ letter, ruleProblems, renditions: going }: ProofFacts): Mark[] {
  const { document } = letter
  const conditions = conditionsOf(document)
  const marks: Mark[] = ruleProblems.map(({ id, problem }) =>
    mark('blocker', blockIn(document, id), 'A row’s rule can’t be asked', problem),
  )
  if (conditions.rules.length > MOST_RULES)
    marks.push(
      mark(
        'blocker',
        null,
        `${conditions.rules.length} rules in one letter`,
        `At most ${MOST_RULES} can be asked. Remove some, or make segments of them.`,
      ),
    )
  if (conditions.of.size === 0 || !going) return marks
  for (const rendition of going) {
    const left = shownDocument(document, truthOf(rendition.truths[0]!, conditions.rules.length))
    if (!hasContent(left))
      marks.push(
        mark(
          'blocker',
          null,
          `${people(rendition)} would get an empty letter`,
          'Nothing but the footer is shown to them.',
          rendition,
        ),
      )
    else if (linksOf(left).length === 0 && linksOf(document).length > 0)
      marks.push(
        mark(
          'caution',
          null,
          `${people(rendition)} would get no link`,
          'Every link stands in a row or block that is not shown to them.',
          rendition,
        ),
      )
  }
  for (const { rows, people: n } of gapsIn(document, going))
    marks.push(
      mark(
        'caution',
        blockIn(document, rows.at(-1)!),
        `${count(n)} people get none of ${rows.length} alternatives`,
        'Show a row to everyone else under them, unless that is what you want.',
      ),
    )
  return marks
}

function hasContent(document: LetterDocument): boolean {
  return blocksOf(document).some(
    ({ kind }) => kind !== 'footer' && kind !== 'space' && kind !== 'divider',
  )
}

/** The block to point at for a row or a block. */
function blockIn(document: LetterDocument, id: string): string | null {
  const row = document.rows.find((one) => one.id === id)
  return row ? (row.columns.find(({ blocks }) => blocks[0])?.blocks[0]?.id ?? null) : id
}

function mark(
  level: Mark['level'],
  blockId: string | null,
  title: string,
  detail: string,
  of?: Rendition,
): Mark {
  const readers = of ? { readers: { truths: of.truths } } : {}
  return { check: 'renditions', level, blockId, title, detail, ...readers }
}

const people = ({ people: n }: Rendition) => `${count(n)} ${n === 1 ? 'person' : 'people'}`
const count = (n: number) => n.toLocaleString('en-GB')
