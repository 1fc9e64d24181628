import { formHtml, formStyle } from '~~/core/sign-ups'
import { liveSignUps } from '~~/database/sign-ups'

/**
 * Every form of the account that may stand on the site that asks, drawn; or one of them. What is published stands there
 * within a minute.
 */
export default defineEventHandler((event) => {
  const origin = siteAsking(event)
  readableOn(event, origin ?? '*')
  const { key, lang } = getQuery(event)
  const live = liveSignUps(satchel().db).filter(({ signUp }) => !key || signUp.key === key)
  const here = origin === null ? [] : live.filter(({ form }) => mayStandOn(form, origin))
  if (here.length === 0) {
    setResponseStatus(event, key && live.length === 0 ? 404 : 403)
    return {
      message:
        key && live.length === 0
          ? 'There is no live form under this key.'
          : `No form may stand on ${origin ?? 'a site that does not say what it is'}. Name the site under Placement.`,
    }
  }
  setResponseHeader(event, 'Cache-Control', 'private, max-age=60')
  return {
    forms: here.map((live) => {
      const one = byLot(event, live)
      const language = formLanguage(event, one.form, lang)
      const drawing = drawingOf(one, language, 'framed')
      return {
        ...{ key: one.signUp.key, kind: one.form.kind, language },
        ...{ html: formHtml(drawing), style: formStyle(drawing.look) },
        placement: one.form.placement,
      }
    }),
  }
})
