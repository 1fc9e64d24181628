import { startCompiling } from '~~/cases/letters/compile-apart'

/** The processes that answer what takes long begin with this one, ahead of the first question. */
export default defineNitroPlugin(() => {
  startAskers()
  startCompiling()
})
