import { beforeEach, expect, test } from 'vitest'
import { richText } from '../../core/letters/rich-text'
import { emptyLetter, insertRow, writeFillIn, type Letter } from '../../core/letters'
import { q, run, type Database } from '..'
import { madeUpAccount, somebody } from '../made-up'
import { countWithout, readerPaths, readerValuesFor } from './reader-values'
import { changeSubscription, roundKey } from '../people'

let db: Database
let list: number
beforeEach(() => ({ db, list } = madeUpAccount()))

const noon = Date.UTC(2026, 10, 3, 12)
function did(person: number, name: string, at: number, props: object) {
  run(
    db,
    q.insertInto('events').values({ person_id: person, name, at, props: JSON.stringify(props) }),
  )
}
function letterWith(...paths: string[]): Letter {
  const letter = emptyLetter()
  const text = richText('Hello ')
  const node = text.content[0]!
  if (node.type === 'paragraph')
    node.content!.push(
      ...paths.map((path) => ({
        type: 'fillIn' as const,
        attrs: { expression: writeFillIn(path, null) },
      })),
    )
  return { ...letter, document: insertRow(letter.document, 0, { id: 't', kind: 'text', text }) }
}

const once = (person_id: number) => ({ person_id, round: 0 })

test('the latest event that says a thing is what is read, and how one joined', () => {
  const [ada, ben] = [somebody(db, 'ada', { list, now: noon }), somebody(db, 'ben', { list })]
  did(ada, 'page view', 1, { page: '/old' })
  did(ada, 'page view', 3, { page: '/new', "odd'; key": 1 })
  did(ada, 'page view', 5, { seconds: 12 })
  const letter = letterWith(
    'event.page_view.page',
    'event.page_view.seconds',
    'sign_up.day',
    'sign_up.way',
  )
  const values = readerValuesFor(db, letter, list)!([once(ada), once(ben)])
  expect(values.get(roundKey(once(ada)))).toEqual({
    event: { page_view: { page: '/new', seconds: 12 } },
    sign_up: { day: '2026-11-03', way: 'form' },
  })
  expect(values.get(roundKey(once(ben)))!.event).toBeUndefined()
})

test('a letter that names nothing of the kind asks nothing', () => {
  expect(readerValuesFor(db, letterWith('person.first_name', 'event.never.was'), list)).toBeNull()
})

test('how many would read a gap; what there is no event of is not known', () => {
  const [ada, ben] = ['ada', 'ben'].map((name) => somebody(db, name, { list }))
  did(ada!, 'page view', 1, { page: '/old' })
  const audience = { listId: list, rule: null }
  expect(countWithout(db, audience, 'event.page_view.page', 9)).toBe(1)
  expect(countWithout(db, audience, 'event.page_view.nothing', 9)).toBeNull()
  expect(countWithout(db, audience, 'event.never.was', 9)).toBeNull()
  expect(countWithout(db, audience, 'sign_up.way', 9)).toBe(0)
  changeSubscription(db, ben!, list, 'unsubscribed', { act: 'person', way: 'form' }, 8)
  expect(countWithout(db, audience, 'event.page_view.page', 9)).toBe(0)
})

test('everything that can be named has words and a path that is read back', () => {
  did(somebody(db, 'ada', { list }), 'Basket  Filled!', 1, { 'First product': 'Delta 7' })
  expect(readerPaths(db)).toContainEqual({
    path: 'event.basket_filled_.first_product',
    name: 'Basket  Filled!: First product',
  })
  for (const { path } of readerPaths(db))
    expect(countWithout(db, { listId: list, rule: null }, path, 9)).not.toBeNull()
})
