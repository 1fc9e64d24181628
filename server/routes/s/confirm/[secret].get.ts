import { consentsOf } from '~~/core/sign-ups'

/** The page behind a confirming letter: says what was agreed to, and has one button. Looking at it changes nothing. */
export default defineEventHandler((event) => {
  const found = confirmedSending(event)
  if (!found || !['pending', 'confirmed'].includes(found.sending.state)) return linkOver(event)
  const { sending, form, told } = found
  if (sending.state === 'confirmed') return sayConfirmed(event, found, 'again')
  const agreed = consentsOf(form, sending.ticked, sending.language).map(
    ({ wording }) => `<li>${escapeText(wording)}</li>`,
  )
  return publicPage(event, {
    title: told.plain('confirmTitle'),
    body: `<p>${told.html('confirmAbout', { address: sending.address })}</p><ul>${agreed.join('')}</ul>
<form method="post"><button>${told.html('confirmButton')}</button></form><p class="small">${told.html('notYou')}</p>`,
    language: told.language,
    goesTo: form.confirmed.url,
  })
})
