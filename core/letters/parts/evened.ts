import { shapeOfArt } from '../art'
import type { Row } from '../document'
import { roomIn } from '../geometry'

/**
 * How much lower than itself each picture of a row ends, px, so that what stands under pictures beside each other begins
 * at one height, whatever their shapes. `shapes`: how high a picture is for its width, by its source.
 */
export function evened(
  row: Row,
  letterWidth: number,
  shapes: Readonly<Record<string, number>>,
): ReadonlyMap<string, number> {
  const lower = new Map<string, number>()
  if (row.columns.length === 1) return lower
  const longest = Math.max(...row.columns.map(({ blocks }) => blocks.length))
  for (let i = 0; i < longest; i++) {
    const heights = row.columns.flatMap(({ share, blocks }) => {
      const block = blocks[i]
      const shape =
        block && 'src' in block ? (shapes[block.src] ?? shapeOfArt(block.src)) : undefined
      if (!block || shape === undefined) return []
      const part = block.kind === 'picture' ? block.width / 100 : 1
      return [{ id: block.id, height: Math.round(roomIn(row, share, letterWidth) * part) * shape }]
    })
    // Columns that go on otherwise stand at different heights from there on anyway.
    if (heights.length < 2) break
    const most = Math.max(...heights.map(({ height }) => height))
    for (const { id, height } of heights)
      if (height < most) lower.set(id, Math.round(most - height))
  }
  return lower
}
