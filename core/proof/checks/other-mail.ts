import type { Mark, ProofFacts } from '../mark'

/** As many mailings as it takes to know what is usual. */
const FEWEST_EARLIER = 3
/** Many times smaller or larger than usual is most likely a wrong choice. */
const FAR = 3
/** A smaller share of the audience is no overlap to speak of. */
const SHARE = 0.02

/** An audience far from its usual size, other mail within 48 hours, and how many the frequency cap spares. */
export function otherMail({ people, audienceCount }: ProofFacts): Mark[] {
  if (!people || audienceCount === 0) return []
  const marks: Mark[] = []
  const base = { check: 'audience', level: 'caution' as const, blockId: null }
  const whole = (n: number) => n.toLocaleString('en-GB')
  if (people.earlier.length >= FEWEST_EARLIER) {
    const sorted = people.earlier.toSorted((a, b) => a - b)
    const usual = sorted[Math.floor(sorted.length / 2)]!
    if (audienceCount * FAR < usual || audienceCount > usual * FAR)
      marks.push({
        ...base,
        title: `${whole(audienceCount)} people, and usually it is about ${whole(usual)}`,
        detail: `The last ${people.earlier.length} mailings to the same audience went to ${whole(sorted[0]!)} to ${whole(sorted.at(-1)!)}. Look whether list and segment are the right ones.`,
      })
  }
  for (const { name, when, people: many } of people.overlaps)
    if (many >= SHARE * audienceCount)
      marks.push({
        ...base,
        title: `${whole(many)} of ${whole(audienceCount)} get “${name}” within 48 hours, too`,
        detail: `${when} Leave its people out, or give them a day more.`,
      })
  if (people.spared)
    marks.push({
      ...base,
      level: 'note',
      title: `${whole(people.spared)} are spared by the frequency cap`,
      detail:
        'They had as many mailings lately as one person should get. Audience shows who they are.',
    })
  return marks
}
