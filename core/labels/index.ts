/** Labels: what the team writes on mailings, sequences and sign-ups, to find them and to see them together. */

/** All that labels are put on, each with its words and where it is listed. */
export const labelled = {
  mailing: { one: 'mailing', many: 'mailings', at: '/mail' },
  sequence: { one: 'sequence', many: 'sequences', at: '/sequences' },
  'sign-up': { one: 'sign-up', many: 'sign-ups', at: '/sign-ups' },
} as const
export type Labelled = keyof typeof labelled
export const labelledKinds = Object.keys(labelled) as Labelled[]

/** How many labels an account has at most, and one thing. */
export const MOST_LABELS = 300
export const MOST_ON_ONE = 12
export const LONGEST_LABEL = 40

/** A label's name as it is kept: without space around it, and with single spaces within. */
export const labelName = (typed: string) => typed.trim().replace(/\s+/g, ' ')

/** Two names that read the same are one label, however they are written. */
export const sameLabel = (a: string, b: string) =>
  labelName(a).toLowerCase() === labelName(b).toLowerCase()

/** Rows under each of their labels, in the order of the labels; those without one come last, under null. */
export function groupByLabel<R, L extends { id: number }>(
  rows: readonly R[],
  labels: readonly L[],
  labelsOf: (row: R) => readonly number[],
): { label: L | null; rows: R[] }[] {
  const groups: { label: L | null; rows: R[] }[] = labels.map((label) => ({
    label,
    rows: rows.filter((row) => labelsOf(row).includes(label.id)),
  }))
  const known = new Set(labels.map(({ id }) => id))
  const without = rows.filter((row) => !labelsOf(row).some((id) => known.has(id)))
  return [...groups, { label: null, rows: without }].filter(({ rows }) => rows.length > 0)
}
