import { expect, test } from 'vitest'
import { corpus, type Sample } from './corpus'
import { readInbound } from './read'

/** A third was set apart, unread, until the reader was done. */
const isApart = (_: unknown, i: number) => i % 3 === 1
const known = corpus.filter((one, i) => !isApart(one, i))

async function readAs({ raw }: Sample): Promise<string> {
  const { reading } = await readInbound(raw)
  return 'failure' in reading ? `${reading.kind}: ${reading.failure}` : reading.kind
}

test('of those that were set apart at least 95% are read right', async () => {
  const apart = corpus.filter(isApart)
  const wrong: string[] = []
  for (const sample of apart) {
    const read = await readAs(sample)
    if (read !== sample.right) wrong.push(`${sample.name}: ${read}, not ${sample.right}`)
  }
  expect(corpus.length).toBeGreaterThanOrEqual(150)
  expect(wrong.length / apart.length, wrong.join('\n')).toBeLessThanOrEqual(0.05)
})

test.each(known.map((sample) => [sample.name, sample] as const))('%s', async (_, sample) => {
  expect(await readAs(sample)).toBe(sample.right)
})
