import { createHash } from 'node:crypto'
import sharp from 'sharp'
import type { Database } from '../database'
import { addPicture } from '../database/letters'

/** Pictures of kites, drawn here. Returns their public paths by name. */
export async function makePictures(db: Database, now: number): Promise<Record<string, string>> {
  const paths: Record<string, string> = {}
  for (const [name, svg] of Object.entries(drawings)) {
    const { data, info } = await sharp(Buffer.from(svg))
      .png({ palette: true })
      .toBuffer({ resolveWithObject: true })
    const hash = createHash('sha256').update(data).digest('hex').slice(0, 32)
    paths[name] = addPicture(db, {
      hash,
      name: `${name}.png`,
      ...described[name as keyof typeof drawings],
      mime: 'image/png',
      width: info.width,
      height: info.height,
      bytes: data,
      created_at: now,
    }).path
  }
  return paths
}

const frame = (sky: string, inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1088" height="460" viewBox="0 0 544 230"><rect width="544" height="230" fill="${sky}"/>${inner}</svg>`
const hills =
  '<path d="M0 190Q120 150 260 184T544 168V230H0Z" fill="#3d5c7a"/><path d="M0 206Q150 186 300 204T544 196V230H0Z" fill="#2c4863"/>'
const line = (x: number, y: number) =>
  `<path d="M${x} ${y}q26 34 -10 84" stroke="#f2f4ea" stroke-width="1.5" fill="none"/>`

const drawings = {
  'storm-front': frame(
    '#22384f',
    `${hills}<path d="M400 30l52 36-30 56-56-34z" fill="#e3bf6d"/><path d="M400 30l-34 58 56 34z" fill="#c08a1e"/>${line(420, 122)}`,
  ),
  'delta-7': frame(
    '#dfe7ee',
    '<path d="M142 160L272 44l130 116-130-24z" fill="#b4573c"/><path d="M272 44v92L142 160z" fill="#6f3a63"/><path d="M272 136v70" stroke="#333" stroke-width="2"/>',
  ),
  'two-lines': frame(
    '#eaefda',
    '<path d="M160 70l60-30 50 60-70 16z" fill="#37628f"/><path d="M330 96l60-34 52 62-72 18z" fill="#2b8c84"/><path d="M214 112q40 60 60 100M392 140q-60 40-110 74" stroke="#3c433a" stroke-width="1.5" fill="none"/>',
  ),
  workbench: frame(
    '#f8eed5',
    '<rect x="60" y="150" width="424" height="18" fill="#9a6b12"/><path d="M110 150l90-92 92 92z" fill="#66752b"/><path d="M200 58v92" stroke="#3a4620" stroke-width="3"/><circle cx="390" cy="128" r="22" fill="none" stroke="#a5371f" stroke-width="7"/>',
  ),
}

/** Where each lies in the library, and what one sees on it. */
const described: Record<keyof typeof drawings, { folder: string; alt: string }> = {
  'storm-front': { folder: 'Weather', alt: 'A kite before a storm front' },
  'delta-7': { folder: 'Kites', alt: 'The Delta 7 from below' },
  'two-lines': { folder: 'Kites', alt: 'Two kites on their lines' },
  workbench: { folder: 'Workshop', alt: 'A workbench with a kite on it' },
}
