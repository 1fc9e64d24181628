import fc from 'fast-check'
import { expect, test } from 'vitest'
import { made, steps } from '../arbitrary'
import { cleanDocument } from '../clean'
import { updateBlock, updateRow } from '../changes'
import { emptyLetter, newBlock, rowOf, type LetterDocument } from '../document'
import { richText } from '../rich-text'
import { cleanStyle, pictureSource } from '../style'
import { compileLetter } from '.'
import { asDrawnBy } from './renderings'
import { madeUpFrame as frame } from './made-up'

const heading = { ...newBlock('heading', 'title'), text: richText('Wind') }
const picture = { ...newBlock('picture', 'pic'), src: '/p/a', alt: 'A kite' }
const document: LetterDocument = {
  version: 1,
  rows: [rowOf(heading as never), rowOf(picture as never), ...emptyLetter().document.rows],
}
async function html(of: LetterDocument) {
  const { parts } = await compileLetter({ subject: 'Wind', previewText: '', document: of }, frame)
  return parts.html.map((piece) => (typeof piece === 'string' ? piece : '')).join('')
}
const media = (text: string) => /@media only screen and \(max-width:480px\) \{ (.*) \}/.exec(text)

test('what is the same on narrow has no rule for it but the paper’s smaller sides', async () => {
  const [, rules] = media(await html(document))!
  expect(rules!.match(/\.[\w-]+/g)).toEqual(['.sides', '.sides-around'])
  expect(rules).toContain('padding-left: 20px')
})

test('size, space and place on narrow hold there only', async () => {
  const style = { narrowSize: 20, narrowSpace: 3, narrowAlign: 'center' as const }
  const text = await html(updateBlock(document, 'title', { style }))
  expect(text).toContain('class="n-title sides"')
  const [, rules] = media(text)!
  expect(rules).toContain('.n-title h1')
  expect(rules).toContain('font-size: 42px')
  expect(rules).toContain('padding-top: 3px')
  expect(rules).toContain('text-align: center')
  expect(text.replace(/<style[^>]*>.*?<\/style>/gs, '')).not.toContain('font-size:36px')
})

test('a size said for the letter on narrow holds for every block, unless one says another', async () => {
  const styled = { ...document, style: { narrowSize: 18 } }
  const own = updateBlock(styled, 'title', { style: { narrowSize: 12 } })
  const [, rules] = media(await html(own))!
  expect(rules).toContain('.n-footer div')
  expect(rules).toMatch(/\.n-title h1[^{]*\{ font-size: 25px/)
})

test('a picture may be of another width on narrow', async () => {
  const [, rules] = media(await html(updateBlock(document, 'pic', { narrowWidth: 50 })))!
  expect(rules).toContain('.n-pic td { width: 50%')
})

test('a picture stands behind a row, but not in the old engine', async () => {
  const style = {
    backdrop: '/p/storm',
    backdropAt: 'bottom right' as const,
    backdropFit: 'contain' as const,
    border: 2,
    borderColor: '#123456',
  }
  const text = await html(updateRow(document, 'r-title', { style }))
  expect(text).toContain('https://mail.galewright.example/p/storm')
  expect(text).toMatch(/bottom right|100% 100%|right bottom/)
  expect(text).toContain('2px solid #123456')
  expect(asDrawnBy('old', text)).not.toMatch(/background[^;"]*url\(/)
})

test('styles from outside hold only what they may', () => {
  expect(cleanStyle({ backdrop: 'javascript:x', backdropAt: 'top left' })).toBeUndefined()
  expect(pictureSource('/p/a") ; x')).toBe('')
  expect(cleanStyle({ backdrop: '/p/a', backdropAt: 'nowhere', narrowAlign: 'up' })).toEqual({
    backdrop: '/p/a',
  })
  expect(cleanStyle({ narrowSize: 99, border: -3 })).toEqual({ narrowSize: 28, border: 0 })
})

test('whatever the letter, what is said for narrow keeps it readable and the same bytes', async () => {
  await fc.assert(
    fc.asyncProperty(steps, fc.integer({ min: 10, max: 28 }), async (all, narrowSize) => {
      const some = { ...made(document, 'o', all), style: { narrowSize } }
      expect(cleanDocument(JSON.parse(JSON.stringify(some)))).toEqual(some)
      expect(await html(some)).toBe(await html(some))
    }),
    { numRuns: 15 },
  )
})
