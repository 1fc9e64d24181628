import { formHtml, nameOf } from '~~/core/sign-ups'

/** A sign-up's form, on a page of its own or in a frame: plain HTML that works without a script. */
export default defineEventHandler((event) => {
  const live = liveFormOf(event)
  if (!live) return closedForm(event)
  const query = getQuery(event)
  const language = formLanguage(event, live.form, query.lang)
  // What the page's address says of where they come from goes along with what they enter.
  const typed = Object.fromEntries(
    live.form.parts.flatMap((part) => {
      const value = part.kind === 'hidden' ? query[part.param] : undefined
      return part.kind === 'hidden' && typeof value === 'string'
        ? [[nameOf.hidden(part), [value.slice(0, 200)]]]
        : []
    }),
  )
  const stands = atDesk(event, live.signUp.id) ? 'desk' : standsOf(event)
  // A browser says which page a frame stands on, as far as that page lets it.
  const page = stands === 'framed' ? pageFrom(getHeader(event, 'referer')) : null
  const drawing = drawingOf(live, language, stands, { typed, page })
  const desk = stands === 'desk' ? deskParts(drawing) : ''
  return signUpPage(event, drawing, formHtml(drawing), { stands, desk })
})
