import { expect, test } from 'vitest'
import { blocksOf, newBlock, type Letter, type Row } from './document'
import { richText } from './rich-text'
import { shareCard, webDocument } from './web-version'

const rule = { kind: 'joined' as const, when: { is: 'last-days' as const, days: 30 } }
const text = (id: string, words: string, more: Partial<Row> = {}): Row => ({
  id: `r-${id}`,
  ...more,
  columns: [{ share: 1, blocks: [{ id, kind: 'text', text: richText(words) }] }],
})
const letter: Letter = {
  subject: 'Wind for {{ person.town }}',
  previewText: '',
  document: {
    version: 1,
    rows: [
      text('new', 'Welcome aboard', { shownTo: { rule } }),
      text('old', 'Good to see you again', { shownTo: { rest: true } }),
      {
        id: 'p',
        columns: [
          { share: 1, blocks: [{ ...newBlock('picture', 'pic'), src: '/p/a.png' } as never] },
        ],
      },
    ],
  },
}

test('for nobody in particular, everyone else’s alternative stands there and nobody’s secrets do', () => {
  expect(blocksOf(webDocument(letter.document)).map(({ id }) => id)).toEqual(['old', 'pic'])
})

test('where it is shared it has a title without fill-ins, words and a picture', () => {
  expect(shareCard(letter)).toEqual({
    title: 'Wind for',
    about: 'Good to see you again',
    picture: '/p/a.png',
  })
  expect(shareCard({ ...letter, previewText: 'Force 5' }).about).toBe('Force 5')
  const empty = { subject: '', previewText: '', document: { version: 1 as const, rows: [] } }
  expect(shareCard(empty)).toEqual({ title: 'A letter', about: '', picture: null })
})
