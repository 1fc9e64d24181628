import { tellSight } from './watch'
import { workFor } from './worked'

/** On a form's own page, or in a frame: tells that it was seen, and hands in the browser's work. The page works without it. */
const form = document.querySelector<HTMLFormElement>('form.sup')
if (form) {
  const address = new URL(form.action).pathname
  tellSight(form, { address, language: form.lang, begins: form })
  const worked = workFor('', address, form)
  const work = document.createElement('input')
  Object.assign(work, { type: 'hidden', name: 'work' })
  form.append(work)
  let going = false
  form.addEventListener('submit', async (event) => {
    if (work.value) return
    event.preventDefault()
    if (going) return
    going = true
    form.setAttribute('aria-busy', 'true')
    work.value = (await worked()) || 'none'
    form.requestSubmit(event.submitter)
  })
}
