import { firstLanguage, formHtml, formStyle } from '~~/core/sign-ups'
import { formOfVersion } from '~~/database/sign-ups'

/** A version as it was published: the form, and how it is drawn. */
export default defineEventHandler((event) => {
  const signUp = signUpOf(event)
  const version = Number(getRouterParam(event, 'version'))
  const form = formOfVersion(satchel().db, signUp.id, version)
  if (!form) throw notFound('There is no such version.')
  const drawing = drawingOf({ signUp, version, form }, firstLanguage(form), 'alone')
  return { form, html: formHtml(drawing), style: formStyle(drawing.look) }
})
