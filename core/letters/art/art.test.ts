import fc from 'fast-check'
import { expect, test } from 'vitest'
import { characters } from '../characters'
import { defaultLetterhead } from '../letterhead'
import { artNames, drawArt, inColors, isArt, paletteOf, readArtName, shapeOfArt } from '.'

test('what a letter asks for is read back with its drawing, its colours and its width', () => {
  for (const { look } of characters)
    for (const name of artNames) {
      const src = `/p/art-${name}`
      const letterhead = { ...defaultLetterhead, ...look }
      expect(isArt(src)).toBe(true)
      expect(shapeOfArt(src)).toBeGreaterThan(0.3)
      const asked = `${inColors(src, letterhead)}-1200`.slice('/p/'.length)
      expect(readArtName(asked)).toEqual({
        ...{ drawing: name, colors: paletteOf(letterhead), px: 1200 },
      })
    }
})

test('nothing else is a drawing, whatever is asked for', () => {
  const good = inColors('/p/art-hills', defaultLetterhead).slice('/p/'.length)
  for (const bad of [
    ...['', good, `${good}-`, `${good}-5`, `${good}-12000`, `${good}.ffffff-600`, `x${good}-600`],
    ...[`${good.replace('hills', 'constructor')}-600`, `${good.replace('hills', 'nobody')}-600`],
    `${good.replace(/[0-9a-f]{6}$/, 'red"/>')}-600`,
  ])
    expect([bad, readArtName(bad)]).toEqual([bad, null])
  expect(isArt('/p/0123456789abcdef0123456789abcdef')).toBe(false)
  expect(shapeOfArt('/p/art-nobody')).toBeUndefined()
  fc.assert(fc.property(fc.string(), (name) => void readArtName(name)))
})

test('a drawing is SVG in its colours alone, and asks for nothing from elsewhere', () => {
  const colors = paletteOf({ ...defaultLetterhead, ...characters[1]!.look })
  for (const name of artNames) {
    const svg = drawArt(name, colors)
    expect(svg).toMatch(/^<svg .*<\/svg>$/s)
    expect(svg).not.toMatch(/NaN|undefined|href|url\((?!#c\))|<script/)
    expect(svg.length).toBeLessThan(8_000)
  }
})
