import { nameOf } from '~~/core/people'
/** The letter as somebody reads it; see `readingOf`. */
export default defineEventHandler(async (event) => {
  const { merged, reader, ...rest } = await readingOf(event)
  return {
    ...merged,
    ...rest,
    reader: reader
      ? {
          id: reader.id,
          address: reader.address,
          name: nameOf(reader),
        }
      : null,
    weight: Buffer.byteLength(merged.html),
  }
})
