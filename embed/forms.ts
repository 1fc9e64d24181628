import type { Placement } from '../core/sign-ups/placement'
import { placeForm } from './place'
import { showPopOvers, type Waiting } from './pop-over'

/** A form as the server draws it for this page. */
export interface DrawnForm {
  key: string
  kind: 'pop-over' | 'in-page' | 'hosted'
  language: string
  html: string
  style: string
  placement: Placement
}

/**
 * The one line that a site pastes: asks which forms of the account may stand on this page, and places them. In-page forms
 * stand where `<div data-sign-up="KEY">` is, or, where the line names one form, in the line's own place.
 */
async function begin() {
  const script = document.currentScript as HTMLScriptElement
  const home = new URL(script.src).origin
  const only = script.dataset.form
  const lang = document.documentElement.lang.slice(0, 2)
  const asked = new URLSearchParams({ ...(only && { key: only }), ...(lang && { lang }) })
  const places = () => [...document.querySelectorAll<HTMLElement>('[data-sign-up]')]
  if (document.readyState === 'loading')
    await new Promise((done) => document.addEventListener('DOMContentLoaded', done, { once: true }))
  const answer = await fetch(`${home}/s/forms.json?${asked}`, { credentials: 'omit' })
  const { forms, message } = (await answer.json()) as { forms?: DrawnForm[]; message?: string }
  if (!forms) return console.warn(`Sign-up: ${message ?? 'refused'}`)
  const waiting: Waiting[] = []
  for (const form of forms) {
    if (form.kind === 'pop-over') waiting.push({ form, home })
    else {
      const here = places().filter((place) => place.dataset.signUp === form.key)
      if (here.length === 0 && only === form.key) {
        const place = document.createElement('div')
        script.after(place)
        here.push(place)
      }
      for (const place of here) placeForm(place, form, home)
    }
  }
  showPopOvers(waiting)
}

void begin().catch(() => {})
