import { diskFullWords, isDiskFull } from '~~/database/disk'

/** What fails because there is no room left says so, in a sentence. */
export default defineNitroPlugin((nitro) => {
  const { options } = nitro.h3App
  const usual = options.onError
  options.onError = (error, event) => {
    if (!isDiskFull(error)) return usual?.(error, event)
    const said = createError({ statusCode: 507, message: diskFullWords })
    return usual?.(said, event)
  }
})
