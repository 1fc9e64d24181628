import { HOUR } from '~~/core/time'
import { permissionOf, type Handler } from '~~/core/team'

/** Whoever changed something is noted before they are answered; what was refused changed nothing. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('beforeResponse', (event, { body }) => {
    const { me: who, handler } = event.context as { me?: Me; handler?: Handler }
    if (!who || !handler || event.node.res.statusCode >= 400) return
    const { did, often } = permissionOf(handler)
    if (did) noteWhat(event, who.user, did, whatOf(event.path, body), often && HOUR)
  })
})

/** What it was done to: the path, with the number of what it made. */
function whatOf(path: string, body: unknown): string {
  const of = path
    .split('?')[0]!
    .replace(/^\/api/, '')
    .slice(0, 200)
  const id = (body as { id?: unknown } | null | undefined)?.id
  return typeof id === 'number' && !/\d/.test(of) ? `${of}/${id}` : of
}
