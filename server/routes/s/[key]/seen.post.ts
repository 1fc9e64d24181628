import { dayOf } from '~~/core/time'
import { recordVisit } from '~~/database/sign-ups'

/** Counts that a form came into somebody's sight, or that they began to fill it in; once a day for each visitor. */
export default defineEventHandler(async (event) => {
  setResponseStatus(event, 204)
  const live = liveFormOf(event)
  const { ip, agent } = fromWhere(event)
  // From another site only where it may stand there.
  const site = siteAsking(event)
  const away = site !== null && site !== new URL(satchel().url).origin
  if (live && away && !mayStandOn(live.form, site)) return null
  if (away) readableOn(event, site)
  // Programs that say what they are fetch pages, too; they see nothing.
  if (!live || !ip || !agent || /bot|crawl|spider|preview/i.test(agent)) return null
  const given = new URLSearchParams((await readRawBody(event)) ?? '')
  const { db, clock } = satchel()
  const source = Object.fromEntries(
    live.form.parts.flatMap((part) => {
      const value = part.kind === 'hidden' ? given.get(part.param)?.slice(0, 200) : null
      return part.kind === 'hidden' && value ? [[part.param, value]] : []
    }),
  )
  recordVisit(
    db,
    {
      ...{ signUpId: live.signUp.id, version: live.version, ip, agent, source },
      language: formLanguage(event, live.form, given.get('language')),
      page: pageFrom(given.get('page')),
      begun: given.get('what') === 'begun',
    },
    dayOf(clock(), account().zone),
    clock(),
  )
  return null
})
