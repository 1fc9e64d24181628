import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { blocksOf, startingLetter } from '~~/core/letters'
import { madeUpServer, mountedBy, settled } from '../made-up'
import { useLetterKeys } from './letter-keys'

let server: ReturnType<typeof madeUpServer>
let press: (key: string, more?: object) => boolean
beforeEach(async () => {
  server = madeUpServer()
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  })
  vi.stubGlobal('getSelection', () => '')
  const takers: ((event: KeyboardEvent) => void)[] = []
  vi.stubGlobal('window', {
    addEventListener: (_: string, take: (event: KeyboardEvent) => void) => void takers.push(take),
    removeEventListener: () => {},
  })
  mountedBy(useLetterKeys)
  press = (key, more = {}) => {
    let prevented = false
    const event = { key, target: null, preventDefault: () => (prevented = true), ...more }
    for (const take of takers) take(event as unknown as KeyboardEvent)
    return prevented
  }
  await opened()
})
afterEach(() => vi.unstubAllGlobals())

async function opened() {
  const store = useMailing()
  const opening = store.open(5)
  await settled()
  server.latest('/api/mailings/5').answer({
    id: 5,
    started_at: null,
    lists: [],
    waterfall: null,
    letter: { ...startingLetter(), version: 1 },
  })
  await settled()
  server.latest('/api/mailings/5/proof').answer({ marks: [] })
  await opening
}
const kinds = () => blocksOf(useMailing().letter!.document).map(({ kind }) => kind)
const ctrl = { ctrlKey: true }

test('the chosen block moves, is doubled and taken away by keys, and undo brings all back', () => {
  const store = useMailing()
  store.chosen = 'action'
  expect(press('ArrowUp', { altKey: true })).toBe(true)
  expect(kinds()).toEqual(['heading', 'button', 'text', 'footer'])
  press('d', ctrl)
  expect(kinds()).toEqual(['heading', 'button', 'button', 'text', 'footer'])
  press('Delete')
  expect(kinds()).toEqual(['heading', 'button', 'text', 'footer'])
  for (let i = 0; i < 3; i++) store.undo()
  expect(kinds()).toEqual(['heading', 'text', 'button', 'footer'])
})

test('a row is copied, cut and pasted under ids of its own', () => {
  const store = useMailing()
  store.chosen = 'title'
  press('c', ctrl)
  store.chosen = 'action'
  press('v', ctrl)
  expect(kinds()).toEqual(['heading', 'text', 'button', 'heading', 'footer'])
  const ids = blocksOf(store.letter!.document).map(({ id }) => id)
  expect(new Set(ids).size).toBe(ids.length)
  expect(store.chosen).toBe(ids[3])
  press('x', ctrl)
  expect(kinds()).toEqual(['heading', 'text', 'button', 'footer'])
  store.chosen = null
  press('v', ctrl)
  expect(kinds()).toEqual(['heading', 'text', 'button', 'heading', 'footer'])
})

test('while somebody writes, letters are letters; Escape stops writing', () => {
  useMailing().chosen = 'title'
  const blur = vi.fn()
  const target = { tagName: 'INPUT', isContentEditable: false, blur }
  expect(press('Delete', { target })).toBe(false)
  expect(press('d', { target, ...ctrl })).toBe(false)
  press('Escape', { target })
  expect(blur).toHaveBeenCalled()
  expect(kinds()).toHaveLength(4)
})

test('the footer is neither cut nor taken away, and odd things that were kept are not pasted', () => {
  const store = useMailing()
  store.chosen = 'footer'
  press('Delete')
  store.chosen = 'footer'
  press('x', ctrl)
  localStorage.setItem('copied-row', '{"columns":[{"blocks":[{"kind":"script"}]}]}')
  press('v', ctrl)
  localStorage.setItem('copied-row', 'no JSON')
  press('v', ctrl)
  expect(kinds()).toEqual(['heading', 'text', 'button', 'footer'])
})

test('several are chosen together by Shift and Ctrl, and go together', () => {
  const store = useMailing()
  store.choose('title')
  store.choose('action', 'between')
  expect(store.all).toEqual(['title', 'opening', 'action'])
  store.choose('opening', 'besides')
  expect(store.all).toEqual(['title', 'action'])
  press('ArrowDown', { altKey: true })
  expect(kinds()).toEqual(['heading', 'text', 'button', 'footer'])
  store.choose('title')
  store.choose('opening', 'besides')
  press('ArrowDown', { altKey: true })
  expect(kinds()).toEqual(['button', 'heading', 'text', 'footer'])
  press('ArrowDown', { altKey: true })
  expect(kinds()).toEqual(['button', 'heading', 'text', 'footer'])
  store.undo()
  expect(kinds()).toEqual(['heading', 'text', 'button', 'footer'])
  store.choose('title')
  store.choose('action', 'besides')
  press('d', ctrl)
  expect(kinds()).toEqual(['heading', 'heading', 'text', 'button', 'button', 'footer'])
  store.undo()
  press('x', ctrl)
  expect(kinds()).toEqual(['text', 'footer'])
  press('v', ctrl)
  expect(kinds()).toEqual(['text', 'heading', 'button', 'footer'])
  store.choose('opening')
  expect(store.all).toEqual(['opening'])
  store.choose('nowhere', 'besides')
  press('Delete')
  expect(kinds()).toEqual(['heading', 'button', 'footer'])
})
