import { lineOf, type SequenceMap } from './map'

/** What keeps a sequence from running, in sentences; none where it may run. */
export function mapProblems(map: SequenceMap, listId: number | null): string[] {
  const problems: string[] = []
  if (listId === null) problems.push('Choose the list on whose behalf it writes.')
  const line = lineOf(map)
  if (!line.some(({ step }) => step.kind === 'mail')) problems.push('There is no mail in it yet.')
  if (line.length && line.at(-1)!.step.next !== null)
    problems.push('It goes round in a circle: nobody would ever finish.')
  const lost = Object.keys(map.steps).length - line.length
  if (lost > 0)
    problems.push(lost === 1 ? 'One step is never reached.' : `${lost} steps are never reached.`)
  if (line.at(-1)?.step.kind === 'wait')
    problems.push('The last wait has nothing behind it. Remove it, or put a mail behind it.')
  return problems
}
