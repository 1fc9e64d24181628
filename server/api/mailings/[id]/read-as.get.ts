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
          name: [reader.first_name, reader.last_name].filter(Boolean).join(' '),
        }
      : null,
    weight: Buffer.byteLength(merged.html),
  }
})
