import { formHtml, nameOf, partsOf, saidHtml, TRAP, DRAWN_FOR, type Posted } from '~~/core/sign-ups'
import { comesFromHere } from '~~/core/sign-in'
import { takeSending } from '~~/cases/sign-ups'

/** Takes what was entered in a form without a script, and says what comes next, or what is wrong with it. */
export default defineEventHandler(async (event) => {
  const live = liveFormOf(event)
  // A script on one of its sites asks for the answer as data; the browser says which site that is.
  const asksData = (getHeader(event, 'accept') ?? '').startsWith('application/json')
  const desk = live !== null && atDesk(event, live.signUp.id)
  const site = asksData && !desk ? siteAsking(event) : null
  if (site) readableOn(event, site)
  if (asksData && live && !desk && !(site && mayStandOn(live.form, site)))
    throw createError({ statusCode: 403, message: 'This form may not stand on this site.' })
  if (!live) return closedForm(event)
  const posted = postedBy((await readRawBody(event)) ?? '')
  const first = (name: string) => posted[name]?.[0] ?? ''
  const seen = formSeen(live, Number(first('version')))
  const { form, signUp } = seen
  const language = formLanguage(event, form, first('language'))
  const stands = standsOf(event)
  const [address] = partsOf(form, 'field').filter(({ field }) => field === 'address')
  const meant = first('meant')
  const typed = meant && address ? { ...posted, [nameOf.field(address)]: [meant] } : posted
  const age = drawnFor(signUp.id, first('token'))
  const { db, clock } = satchel()
  const work = await workDone(signUp.id, first('work'))
  const { origin, host, 'sec-fetch-site': fetchSite } = getHeaders(event)
  // A form that we did not draw says neither when it was seen nor by whom; it is shown once more, as it was filled in.
  const again = desk
    ? undefined
    : !first('token')
      ? 'plain'
      : age !== null && age > DRAWN_FOR
        ? 'stale'
        : undefined
  const fromElsewhere = again === 'plain' || first('elsewhere') !== ''
  // At a desk many enter by one device, and some of it comes later, when there is a line again; each once.
  const entry = desk && /^[\w-]{8,60}$/.test(first('entry')) ? `desk ${first('entry')}` : null
  const came = again
    ? null
    : takeSending(
        db,
        { ...{ form, language }, signUpId: signUp.id, version: seen.version },
        typed,
        {
          trapped: first(TRAP) !== '',
          drawnFor: desk ? DESK_READ : age,
          work: entry ?? work,
          // On a page of its own it is we who show it, and a script says its site; in a frame nobody can tell.
          proven:
            site !== null ||
            (stands === 'alone' &&
              !fromElsewhere &&
              !desk &&
              comesFromHere({ site: fetchSite, origin, host, url: satchel().url })),
          sure: first('sure') !== '' || meant !== '',
          page:
            stands === 'alone' && !site && !fromElsewhere
              ? `/s/${signUp.key}`
              : pageFrom(first('page')),
          ...fromWhere(event),
          ...(desk ? { ip: null } : {}),
        },
        mailboxDomains(),
        clock(),
      )
  if (came?.kind === 'too-many')
    throw createError({ statusCode: 429, message: 'Too many came from here. Try again later.' })
  if (!came || came.kind === 'wrong') {
    const drawing = drawingOf(seen, language, stands, {
      ...{ typed, faults: came?.faults ?? {}, meant: came?.meant ?? null },
      ...{
        again,
        fromElsewhere,
        page: pageFrom(first('page') || (again && getHeader(event, 'referer'))),
      },
    })
    if (asksData) return { state: 'wrong', html: formHtml(drawing) }
    return signUpPage(event, drawing, formHtml(drawing), { stands, status: 422 })
  }
  const drawing = drawingOf(seen, language, stands)
  const said = came.kind === 'waits' ? form.thanks : form.confirmed
  if (asksData) return { state: came.kind, html: saidHtml(said, drawing), go: said.url }
  if (said.url && stands === 'alone') return sendRedirect(event, said.url, 303)
  // A frame can't lead its page elsewhere by itself; a link can.
  return signUpPage(event, drawing, saidHtml(said, drawing, true), { stands })
})

/** Somebody stands before it and reads. */
const DESK_READ = 60_000

/** What a form posted (application/x-www-form-urlencoded), by name. */
function postedBy(body: string): Posted {
  const posted: Record<string, string[]> = Object.create(null) as Record<string, string[]>
  for (const [name, value] of new URLSearchParams(body)) (posted[name] ??= []).push(value)
  return posted
}
