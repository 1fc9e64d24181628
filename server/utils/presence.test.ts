import { expect, test } from 'vitest'
import { bePresent, leave, presenceChanges } from './presence'

const wren = { tab: 'a', userId: 1, name: 'Wren', blockId: null }
const tove = { tab: 'b', userId: 2, name: 'Tove', blockId: null }

test('a block is held by who came first, until they leave it', () => {
  expect(bePresent(1, { ...wren, blockId: 'title' }, 0)).toEqual({ others: [], held: true })
  const wanted = bePresent(1, { ...tove, blockId: 'title' }, 1)
  expect(wanted).toEqual({ others: [{ ...wren, blockId: 'title' }], held: false })
  expect(bePresent(1, wren, 2).others).toEqual([tove])
  expect(bePresent(1, { ...tove, blockId: 'title' }, 3).held).toBe(true)
})

test('who says nothing for a while, or leaves, is gone; letters do not mix', () => {
  bePresent(2, { ...wren, blockId: 'x' }, 0)
  expect(bePresent(3, tove, 1).others).toEqual([])
  expect(bePresent(2, { ...tove, blockId: 'x' }, 15_002)).toEqual({ others: [], held: true })
  bePresent(2, wren, 15_003)
  leave(2, 'b')
  expect(bePresent(2, { ...wren, blockId: 'x' }, 15_004)).toEqual({ others: [], held: true })
})

test('only what changes is told', () => {
  bePresent(4, wren, 0)
  const before = presenceChanges()
  bePresent(4, wren, 1)
  expect(presenceChanges()).toBe(before)
  bePresent(4, { ...wren, blockId: 'x' }, 2)
  leave(4, 'a')
  leave(4, 'a')
  expect(presenceChanges()).toBe(before + 2)
})
