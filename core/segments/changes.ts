import { isGroup, type Group, type Rule } from './rule'

/** Where a part of a rule stands: the index in each group from the root down. The root is []. */
export type Path = readonly number[]

export function partAt(rule: Rule, path: Path): Rule | null {
  let part: Rule | undefined = rule
  for (const index of path) part = part && isGroup(part) ? part.of[index] : undefined
  return part ?? null
}

/** The rule with another part at `path`. */
export function replacePart(rule: Rule, path: Path, part: Rule): Rule {
  return change(rule, path, () => [part])
}

/** The rule with a part put before what stands at `path`; behind the last where there is none. */
export function insertPart(rule: Rule, path: Path, part: Rule): Rule {
  const group = path.slice(0, -1)
  const index = path.at(-1)!
  const at = partAt(rule, group)
  if (!at || !isGroup(at)) return rule
  const of = [...at.of]
  of.splice(Math.min(index, of.length), 0, part)
  return replacePart(rule, group, { ...at, of })
}

/** The rule without the part at `path`, and without groups below the root that this left empty. */
export function removePart(rule: Rule, path: Path): Rule {
  if (path.length === 0) return { kind: 'all', of: [] }
  const left = change(rule, path, () => [])
  const group = path.slice(0, -1)
  const at = partAt(left, group)
  return group.length > 0 && at && isGroup(at) && at.of.length === 0
    ? removePart(left, group)
    : left
}

/** The rule with the part at `path` in a new group of its own. */
export function groupPart(rule: Rule, path: Path, kind: Group['kind']): Rule {
  const part = partAt(rule, path)
  return part && path.length ? replacePart(rule, path, { kind, of: [part] }) : rule
}

/** The rule with the parts of the group at `path` in its place. */
export function ungroupPart(rule: Rule, path: Path): Rule {
  const part = partAt(rule, path)
  return part && isGroup(part) && path.length ? change(rule, path, () => part.of) : rule
}

/**
 * The rule with the part at `from` taken out and put before what stood at `to`. Nothing happens where
 * `to` lies within the part itself.
 */
export function movePart(rule: Rule, from: Path, to: Path): Rule {
  const part = partAt(rule, from)
  if (!part || from.length === 0 || to.length === 0) return rule
  if (from.every((index, i) => to[i] === index) && to.length > from.length) return rule
  // Marked first and taken out last, so that no index moves in between.
  const mark: Rule = { kind: 'all', of: [] }
  const marked = insertPart(replacePart(rule, from, mark), to, part)
  const at = pathOf(marked, mark)
  return at ? removePart(marked, at) : rule
}

/** The parts of a rule in reading order with their paths: the lines of the editor. */
export function linesOf(
  rule: Rule,
  path: Path = [],
): { path: Path; part: Rule; within: Group | null }[] {
  const lines = (part: Rule, at: Path, within: Group | null): ReturnType<typeof linesOf> => [
    { path: at, part, within },
    ...(isGroup(part) ? part.of.flatMap((child, i) => lines(child, [...at, i], part)) : []),
  ]
  return lines(rule, path, null)
}

function change(rule: Rule, path: Path, make: (part: Rule) => Rule[]): Rule {
  const [index, ...rest] = path
  if (index === undefined) return make(rule)[0] ?? { kind: 'all', of: [] }
  if (!isGroup(rule) || !rule.of[index]) return rule
  const of = rule.of.flatMap((part, i) =>
    i !== index ? [part] : rest.length ? [change(part, rest, make)] : make(part),
  )
  return { ...rule, of }
}

function pathOf(rule: Rule, wanted: Rule, path: Path = []): Path | null {
  if (rule === wanted) return path
  if (!isGroup(rule)) return null
  for (const [i, part] of rule.of.entries()) {
    const found = pathOf(part, wanted, [...path, i])
    if (found) return found
  }
  return null
}
