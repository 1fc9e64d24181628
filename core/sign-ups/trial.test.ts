import { createHash } from 'node:crypto'
import { expect, test } from 'vitest'
import { judgeTest, testedVersion } from './trial'

const visitor = (n: number) => createHash('sha256').update(`${n}`).digest('base64url').slice(0, 22)

test('each visitor sees one version, the same each time; over many the versions are even', () => {
  const of = { id: 3, versions: [2, 5, 6] }
  const seen = new Map<number, number>()
  for (let n = 0; n < 6_000; n++) {
    const version = testedVersion(of, visitor(n))
    expect(testedVersion(of, visitor(n))).toBe(version)
    seen.set(version, (seen.get(version) ?? 0) + 1)
  }
  expect([...seen.keys()].sort()).toEqual([2, 5, 6])
  // Four standard deviations of a third of 6,000.
  for (const many of seen.values()) expect(Math.abs(many - 2_000)).toBeLessThan(150)
  const other = Array.from({ length: 900 }, (_, n) => testedVersion({ ...of, id: 4 }, visitor(n)))
  const same = other.filter((version, n) => version === testedVersion(of, visitor(n)))
  expect(same.length / other.length).toBeLessThan(0.4)
})

test('versions are judged by who confirmed, of who saw it', () => {
  const near = judgeTest([
    { version: 3, seen: 400, confirmed: 40 },
    { version: 4, seen: 390, confirmed: 42 },
  ])
  expect([near.leader, near.clear]).toEqual([1, false])
  const far = judgeTest([
    { version: 3, seen: 900, confirmed: 126 },
    { version: 4, seen: 910, confirmed: 60 },
  ])
  expect([far.leader, far.clear]).toEqual([0, true])
  expect(far.versions[0]!.best).toBeGreaterThan(0.999)
  expect(far.ahead.low).toBeGreaterThan(0)
  const nothing = judgeTest([
    { version: 1, seen: 0, confirmed: 0 },
    { version: 2, seen: 0, confirmed: 0 },
  ])
  expect(nothing.clear).toBe(false)
  expect(nothing.versions.map(({ best }) => best.toFixed(2))).toEqual(['0.50', '0.50'])
})
