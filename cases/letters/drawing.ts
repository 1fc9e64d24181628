import sharp from 'sharp'
import { drawArt, readArtName } from '../../core/letters/art'

/** So many are kept, the last that were asked for: a few letterheads with all of theirs. */
const KEPT = 200
const STEP = 50
const WIDEST = 1200
const kept = new Map<string, Promise<Buffer>>()

/** A drawing that ships with Satchel, as PNG, by the name under which a letter asks for it; null where it is none. */
export function drawing(name: string): Promise<Buffer> | null {
  const asked = readArtName(name)
  if (!asked) return null
  const width = Math.min(WIDEST, Math.max(STEP, Math.ceil(asked.px / STEP) * STEP))
  const key = name.replace(/-\d+$/, `-${width}`)
  const made = kept.get(key) ?? drawn(asked, width)
  kept.delete(key)
  kept.set(key, made)
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!)
  return made
}

function drawn({ drawing, colors }: NonNullable<ReturnType<typeof readArtName>>, width: number) {
  return sharp(Buffer.from(drawArt(drawing, colors)))
    .resize({ width })
    .png({ palette: true, colors: 64, compressionLevel: 9 })
    .toBuffer()
}
