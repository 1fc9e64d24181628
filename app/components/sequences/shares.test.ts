import { expect, test } from 'vitest'
import { restOf, type Drawn } from '~~/core/sequences'
import { withOneMore, withShare } from './shares'

const shares = (...given: number[]) =>
  given.map((share) => ({ share, mailingId: share }) as Drawn & { mailingId: number })

test('where all have the same share, one more has it too', () => {
  expect(withOneMore(shares(), { mailingId: 7 })).toEqual([{ mailingId: 7, share: 500 }])
  const three = withOneMore(shares(500), { mailingId: 7 })
  expect(three.map(({ share }) => share)).toEqual([333, 333])
  expect(withOneMore(three, { mailingId: 8 }).map(({ share }) => share)).toEqual([250, 250, 250])
})

test('a share that somebody chose stays: one more gets half of what the first had', () => {
  const chosen = withShare(shares(500), 0, 30)!
  const more = withOneMore(chosen, { mailingId: 7 })
  expect(more.map(({ share }) => share)).toEqual([300, 350])
  expect(restOf(more)).toBe(350)
})

test('where the first has nothing to give, all have the same again', () => {
  const more = withOneMore(withShare(shares(500), 0, 200)!, { mailingId: 7 })
  expect(more.map(({ share }) => share)).toEqual([333, 333])
})
