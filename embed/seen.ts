import { tellSight } from './watch'

/** On a form's own page, or in a frame: tells that it was seen. The page works without it. */
const form = document.querySelector<HTMLFormElement>('form.sup')
if (form)
  tellSight(form, {
    address: new URL(form.action).pathname,
    language: form.lang,
    begins: form,
  })
