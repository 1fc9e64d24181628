import sharp from 'sharp'
import { expect, test } from 'vitest'
import { artNames, defaultLetterhead, inColors, shapeOfArt } from '../../core/letters'
import { drawing } from './drawing'

const asked = (name: string, px: number) =>
  `${inColors(`/p/art-${name}`, defaultLetterhead).slice('/p/'.length)}-${px}`

test('every drawing is made to the width that is asked for, in steps, light enough to be sent', async () => {
  for (const name of artNames) {
    const png = await drawing(asked(name, 1_180))!
    const { width, height, format } = await sharp(png).metadata()
    expect([name, format, width]).toEqual([name, 'png', 1_200])
    expect(Math.abs(height - 1_200 * shapeOfArt(`/p/art-${name}`)!)).toBeLessThan(2)
    expect(png.length).toBeLessThan(60_000)
  }
  // The same name, the same bytes, made once.
  expect(drawing(asked('hills', 601))).toBe(drawing(asked('hills', 650)))
})

test('what is no drawing is none, and none is wider than letters are', async () => {
  expect(drawing('0123456789abcdef0123456789abcdef-600')).toBeNull()
  expect(drawing(asked('nobody', 600))).toBeNull()
  expect((await sharp(await drawing(asked('hills', 9_999))!).metadata()).width).toBe(1_200)
})
