import { toBuffer, toString as drawn } from 'qrcode'

/** The address of its hosted page as a QR code (ISO/IEC 18004), to be printed: SVG, or PNG of 1200 pixels. */
export default defineEventHandler(async (event) => {
  const { key } = signUpOf(event)
  const png = getQuery(event).as === 'png'
  const address = `${satchel().url}/s/${key}`
  const look = { errorCorrectionLevel: 'M', margin: 4 } as const
  setResponseHeaders(event, {
    'Content-Type': png ? 'image/png' : 'image/svg+xml; charset=utf-8',
    'Content-Disposition': `attachment; filename="sign-up-${key}.${png ? 'png' : 'svg'}"`,
  })
  return png
    ? await toBuffer(address, { ...look, type: 'png', width: 1200 })
    : await drawn(address, { ...look, type: 'svg' })
})
