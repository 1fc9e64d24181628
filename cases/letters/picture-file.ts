import { createHash } from 'node:crypto'
import sharp, { type Sharp } from 'sharp'

/** Why a picture is not taken, in words for whoever brings it. */
export class PictureFault extends Error {}

/** A picture ready to be kept. */
export interface PictureFile {
  hash: string
  mime: string
  width: number
  height: number
  bytes: Buffer
}

const LARGEST = 20 * 1024 * 1024
/** Wide enough to be cut from; letters get it in the width in which they show it. */
const WIDEST = 2400
const MOST_PIXELS = 60_000_000
/** Pixels of a side, pictures of one that moves, and pixels of all of them together. */
const LONGEST_SIDE = 20_000
const MOST_PAGES = 600
const MOST_IN_ALL = 300_000_000
/** Seconds that making one may take. */
const LONGEST = 30
const reading = { limitInputPixels: MOST_IN_ALL, animated: true }

/** A picture out of what came from outside, upright and without what else its file says; throws a `PictureFault` else. */
export async function readPictureFile(body: Buffer | undefined): Promise<PictureFile> {
  if (!body || body.length === 0) throw new PictureFault('The file is empty.')
  if (body.length > LARGEST)
    throw new PictureFault('This picture is larger than 20 MB. Make it smaller first.')
  const { format, width = 0, height = 0, pages = 1 } = await metadataOf(body)
  if (format === 'svg')
    throw new PictureFault(
      'Mail programs do not show SVG. Save the drawing as a PNG, twice as large.',
    )
  if (!format || !['jpeg', 'png', 'gif', 'webp'].includes(format))
    throw new PictureFault(
      `Mail programs do not show ${format?.toUpperCase() ?? 'this kind of file'}. Use a JPEG, PNG or GIF.`,
    )
  if (width * height > MOST_PIXELS)
    throw new PictureFault(
      `This picture has ${width} by ${height} pixels; at most 60 million are read.`,
    )
  if (Math.max(width, height) > LONGEST_SIDE)
    throw new PictureFault(
      `This picture is ${width} by ${height} pixels; a side has at most ${LONGEST_SIDE.toLocaleString('en-GB')}.`,
    )
  if (pages > MOST_PAGES || width * height * pages > MOST_IN_ALL)
    throw new PictureFault(
      `This picture moves through ${pages} pictures of ${width} by ${height} pixels, which is too much for a letter.`,
    )
  const moves = pages > 1 && (format === 'gif' || format === 'webp')
  try {
    const input = sharp(body, { ...reading, animated: moves })
    const upright = moves ? input : input.rotate()
    return await made(upright.resize({ width: WIDEST, withoutEnlargement: true }), {
      moves,
      photo: format === 'jpeg' || (format === 'webp' && !moves),
    })
  } catch {
    throw new PictureFault('This picture is broken: it can’t be read to its end. Save it anew.')
  }
}

/** A part of a picture, by shares of its width and height, turned by quarters to the right. */
export async function cutPicture(
  { bytes, mime }: { bytes: Buffer; mime: string },
  cut: { left: number; top: number; width: number; height: number; turn: number },
): Promise<PictureFile> {
  const turned = await sharp(bytes)
    .rotate(cut.turn * 90)
    .toBuffer({ resolveWithObject: true })
  const { width, height } = turned.info
  const area = {
    left: Math.min(width - 1, Math.round(cut.left * width)),
    top: Math.min(height - 1, Math.round(cut.top * height)),
  }
  const size = {
    width: Math.max(1, Math.min(width - area.left, Math.round(cut.width * width))),
    height: Math.max(1, Math.min(height - area.top, Math.round(cut.height * height))),
  }
  const part = sharp(turned.data).extract({ ...area, ...size })
  return made(part, { moves: false, photo: mime === 'image/jpeg' })
}

/** A picture made to a width, px. */
export async function pictureInWidth(
  { bytes, mime }: { bytes: Buffer; mime: string },
  width: number,
): Promise<{ mime: string; bytes: Buffer }> {
  const moves = mime === 'image/gif'
  const resized = sharp(bytes, { animated: moves }).resize({ width, withoutEnlargement: true })
  const file = await made(resized, { moves, photo: mime === 'image/jpeg' })
  return { mime: file.mime, bytes: file.bytes }
}

/** A still of a film, with the sign that it plays: a triangle on a disc, a fifth as wide as the picture. */
export async function withPlaySign({ bytes, mime }: { bytes: Buffer; mime: string }) {
  const still = sharp(bytes)
  const { width, height } = await still.metadata()
  const size = Math.max(24, Math.round(Math.min(width / 5, height / 2)))
  const sign = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 100 100"><circle cx="50" cy="50" r="48" fill="#14170f" fill-opacity=".72"/><path d="M40 29v42l34-21z" fill="#fff"/></svg>`
  if (width < size || height < size) return { bytes, mime }
  const marked = still.composite([{ input: Buffer.from(sign), gravity: 'center' }])
  const file = await made(marked, { moves: false, photo: mime === 'image/jpeg' })
  return { mime: file.mime, bytes: file.bytes }
}

/** Photographs as JPEG, what moves as GIF, everything else as PNG with as few colours as will do. */
async function made(
  picture: Sharp,
  { moves, photo }: { moves: boolean; photo: boolean },
): Promise<PictureFile> {
  const written = moves
    ? picture.gif()
    : photo
      ? picture.jpeg({ quality: 82, mozjpeg: true })
      : picture.png({ palette: true })
  const { data, info } = await written
    .timeout({ seconds: LONGEST })
    .toBuffer({ resolveWithObject: true })
  return {
    hash: createHash('sha256').update(data).digest('hex').slice(0, 32),
    mime: `image/${info.format}`,
    width: info.width,
    height: info.pageHeight ?? info.height,
    bytes: data,
  }
}

async function metadataOf(body: Buffer) {
  try {
    return await sharp(body, { ...reading, limitInputPixels: false }).metadata()
  } catch {
    throw new PictureFault(
      'This file is not a picture that mail programs show. Use a JPEG, PNG or GIF.',
    )
  }
}
