import { CONFIRM_WITHIN, firstLanguage, purposesOf } from '~~/core/sign-ups'
import { mailBy } from '~~/cases/sign-ups'

/** The confirming letter of the draft, as it goes to somebody who ticks everything. */
export default defineEventHandler((event) => {
  const { db, clock, url } = satchel()
  const { form } = signUpOf(event)
  const { language: asked } = getQuery(event)
  return mailBy(db, form, 'confirm', {
    language: form.languages.find((one) => one === asked) ?? firstLanguage(form),
    ticked: purposesOf(form).map(({ id }) => id),
    address: 'somebody@example.org',
    link: `${url}/s/confirm/`,
    promised: form.promised.url,
    until: clock() + CONFIRM_WITHIN,
  })
})
