import { expect, test } from 'vitest'
import { fits, mayShow, usualPlacement, type Placement, type Visitor } from './placement'

const somebody: Visitor = {
  ...{ path: '/beaches', width: 1280, referrer: '', source: '', medium: '', joined: false },
  ...{ closedAt: null, now: 100 * 86_400_000 },
}
const shows = (over: Partial<Placement>, who: Partial<Visitor> = {}) =>
  mayShow({ ...usualPlacement, ...over }, { ...somebody, ...who })

test('it is shown to a visitor, but not to who joined, closed it lately, or came by a letter', () => {
  expect(shows({})).toBe(true)
  expect(shows({}, { joined: true })).toBe(false)
  expect(shows({}, { medium: 'email' })).toBe(false)
  const ago = (days: number) => ({ closedAt: somebody.now - days * 86_400_000 })
  expect([shows({}, ago(29)), shows({}, ago(31))]).toEqual([false, true])
})

test('only on the pages, devices and from the places that are named', () => {
  expect(shows({ only: ['/beaches'] })).toBe(true)
  expect(shows({ only: ['/shop/*'] })).toBe(false)
  expect(shows({ not: ['/b*'] })).toBe(false)
  expect([shows({ devices: 'phones' }), shows({ devices: 'phones' }, { width: 390 })]).toEqual([
    false,
    true,
  ])
  expect(shows({ from: ['kites.example'] }, { referrer: 'www.kites.example' })).toBe(true)
  expect(shows({ from: ['kites.example'] }, { referrer: 'notkites.example' })).toBe(false)
  expect(shows({ from: ['poster'] }, { source: 'poster' })).toBe(true)
})

test.each([
  ['/shop', '/shop', true],
  ['/shop', '/shop/', true],
  ['/shop', '/shop/cart', false],
  ['/shop/*', '/shop/cart', true],
  ['/shop/*', '/shopping', false],
  ['*/cart', '/shop/cart', true],
  ['/*/cart*', '/shop/cart/2', true],
  ['/a*b*b', '/ab', false],
  ['*', '/', true],
])('the pattern %s and the path %s: %s', (pattern, path, is) => {
  expect(fits(pattern, path)).toBe(is)
})
