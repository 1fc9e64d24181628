import sharp from 'sharp'
import { expect, test } from 'vitest'
import {
  cutPicture,
  PictureFault,
  pictureInWidth,
  readPictureFile,
  withPlaySign,
} from './picture-file'

/** Left half red, right half blue. */
const halves = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#ff0000' } }).composite([
    {
      input: {
        create: { width: Math.floor(width / 2), height, channels: 3, background: '#0000ff' },
      },
      gravity: 'east',
    },
  ])
async function colorAt(bytes: Buffer, left: number, top: number) {
  const area = { left, top, width: 1, height: 1 }
  const { data } = await sharp(bytes).extract(area).raw().toBuffer({ resolveWithObject: true })
  return data[0]! > data[2]! ? 'red' : 'blue'
}
const moving = () => {
  const frame = (red: number) => Buffer.alloc(40 * 40 * 3, red)
  const both = Buffer.concat([frame(10), frame(200)])
  return sharp(both, { raw: { width: 40, height: 80, channels: 3, pageHeight: 40 } })
    .gif({ delay: [100, 100] })
    .toBuffer()
}

test('a photograph stays one, turned upright, without what its file tells of its place', async () => {
  const jpeg = await halves(400, 200)
    .jpeg()
    .withMetadata({ orientation: 6 })
    .withExif({ IFD0: { Copyright: 'somebody' } })
    .toBuffer()
  const file = await readPictureFile(jpeg)
  expect(file).toMatchObject({ mime: 'image/jpeg' })
  expect((await sharp(file.bytes).metadata()).exif).toBeUndefined()
  expect(file.hash).toMatch(/^[0-9a-f]{32}$/)
  expect((await readPictureFile(jpeg)).hash).toBe(file.hash)
})

test('what is wider than letters ever need is made smaller, what is smaller is left', async () => {
  const wide = await readPictureFile(await halves(3_000, 300).png().toBuffer())
  expect(wide).toMatchObject({ width: 2_400, height: 240, mime: 'image/png' })
  const small = await readPictureFile(await halves(90, 30).png().toBuffer())
  expect(small).toMatchObject({ width: 90, height: 30 })
})

test('what moves goes on moving', async () => {
  const file = await readPictureFile(await moving())
  expect(file).toMatchObject({ mime: 'image/gif', width: 40, height: 40 })
  expect((await sharp(file.bytes, { animated: true }).metadata()).pages).toBe(2)
  const narrow = await pictureInWidth(file, 20)
  expect((await sharp(narrow.bytes, { animated: true }).metadata()).pages).toBe(2)
})

test.each([
  ['an empty file', Buffer.alloc(0), /empty/],
  [
    'a drawing',
    Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
    /SVG/,
  ],
  ['a text', Buffer.from('Dear all'), /not a picture/],
  ['too much', Buffer.alloc(21 * 1024 * 1024), /20 MB/],
])('%s is refused with its reason', async (_, bytes, reason) => {
  await expect(readPictureFile(bytes)).rejects.toThrow(PictureFault)
  await expect(readPictureFile(bytes)).rejects.toThrow(reason)
})

test('a picture that breaks off is refused', async () => {
  const whole = await halves(600, 600).png().toBuffer()
  const broken = Buffer.concat([whole.subarray(0, 200), Buffer.alloc(50)])
  await expect(readPictureFile(broken)).rejects.toThrow(PictureFault)
})

test('a part is cut by shares, after it is turned', async () => {
  const picture = { bytes: await halves(400, 200).png().toBuffer(), mime: 'image/png' }
  const right = await cutPicture(picture, { left: 0.5, top: 0, width: 0.5, height: 1, turn: 0 })
  expect(right).toMatchObject({ width: 200, height: 200 })
  expect(await colorAt(right.bytes, 5, 5)).toBe('blue')
  const turned = await cutPicture(picture, { left: 0, top: 0, width: 1, height: 0.5, turn: 1 })
  expect(turned).toMatchObject({ width: 200, height: 200 })
  expect(await colorAt(turned.bytes, 5, 5)).toBe('red')
  const sliver = { left: 1, top: 1, width: 0.0001, height: 0.0001, turn: 3 }
  await expect(cutPicture(picture, sliver)).resolves.toMatchObject({ width: 1, height: 1 })
})

test('a picture is made to a width and keeps its shape', async () => {
  const picture = { bytes: await halves(400, 200).jpeg().toBuffer(), mime: 'image/jpeg' }
  const { bytes } = await pictureInWidth(picture, 100)
  expect(await sharp(bytes).metadata()).toMatchObject({ width: 100, height: 50, format: 'jpeg' })
})

test('a still of a film gets its sign in the middle, and keeps its size', async () => {
  const white = sharp({ create: { width: 400, height: 200, channels: 3, background: '#ffffff' } })
  const picture = { bytes: await white.jpeg().toBuffer(), mime: 'image/jpeg' }
  const { bytes } = await withPlaySign(picture)
  expect(await sharp(bytes).metadata()).toMatchObject({ width: 400, height: 200, format: 'jpeg' })
  const at = async (left: number) => {
    const area = { left, top: 100, width: 1, height: 1 }
    return (await sharp(bytes).extract(area).raw().toBuffer())[0]!
  }
  expect(await at(20)).toBeGreaterThan(240)
  expect(await at(170)).toBeLessThan(140)
  expect(await at(200)).toBeGreaterThan(240)
  const tiny = { bytes: await white.resize(10, 5).png().toBuffer(), mime: 'image/png' }
  expect((await withPlaySign(tiny)).bytes).toBe(tiny.bytes)
})

test('what is long and thin, or moves through too much, is refused before it is read', async () => {
  const wide = await sharp({
    create: { width: 20_001, height: 2, channels: 3, background: '#fff' },
  })
    .png()
    .toBuffer()
  await expect(readPictureFile(wide)).rejects.toThrow(/a side has at most 20,000/)
  const frames = 601
  const many = await sharp(Buffer.alloc(frames * 2 * 2 * 3), {
    raw: { width: 2, height: frames * 2, channels: 3, pageHeight: 2 },
  })
    .gif({ keepDuplicateFrames: true })
    .toBuffer()
  const { pages } = await sharp(many, { animated: true }).metadata()
  expect(pages).toBe(frames)
  await expect(readPictureFile(many)).rejects.toThrow(/moves through 601 pictures/)
})
