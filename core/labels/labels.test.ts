import { expect, it } from 'vitest'
import { groupByLabel, labelName, sameLabel } from '.'

it('a name is kept without the space around it, and is the same however it is written', () => {
  expect(labelName('  Spring   fair ')).toBe('Spring fair')
  expect(sameLabel('spring FAIR', ' Spring  fair')).toBe(true)
  expect(sameLabel('Überblick', 'überblick')).toBe(true)
  expect(sameLabel('Spring', 'Spring fair')).toBe(false)
})

it('each row stands under every label it has, and without one at the end', () => {
  const rows = [
    { name: 'a', of: [2, 1] },
    { name: 'b', of: [] },
    { name: 'c', of: [2] },
    { name: 'd', of: [9] },
  ]
  const groups = groupByLabel(rows, [{ id: 1 }, { id: 2 }, { id: 3 }], ({ of }) => of)
  expect(groups.map(({ label, rows }) => [label?.id, rows.map(({ name }) => name)])).toEqual([
    [1, ['a']],
    [2, ['a', 'c']],
    [undefined, ['b', 'd']],
  ])
})
