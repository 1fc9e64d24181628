import { toString as qrCode } from 'qrcode'
import { newSecret } from '~~/cases/team'
import { totpAddress } from '~~/core/sign-in'

/** A secret for a second factor, also as a picture to scan; it counts only when a code of it comes back. */
export default defineEventHandler(async (event) => {
  const secret = newSecret()
  const address = totpAddress(secret, me(event).user.address)
  return { secret, picture: await qrCode(address, { type: 'svg', margin: 0 }) }
})
