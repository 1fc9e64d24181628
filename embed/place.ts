import type { DrawnForm } from './forms'
import { remember } from './memory'
import { tellSight } from './watch'
import { workFor } from './worked'

/** What a sending is answered with. */
interface Came {
  state: 'waits' | 'confirmed' | 'wrong'
  html: string
  /** Where the visitor is led instead. */
  go?: string
}

/**
 * Draws a form into a place of the page, in a shadow root: neither style disturbs the other. Its style is a constructed
 * sheet, which also a strict Content-Security-Policy lets through. What is sent in is answered in the same place.
 */
export function placeForm(place: HTMLElement, form: DrawnForm, home: string, done = () => {}) {
  const root = place.shadowRoot ?? place.attachShadow({ mode: 'open' })
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(`:host{all:initial;display:block}${form.style}`)
  root.adoptedStyleSheets = [...root.adoptedStyleSheets, sheet]
  const room = document.createElement('div')
  root.append(room)
  const address = `${home}/s/${form.key}`
  let sending = false
  const worked = workFor(home, address, root)

  function draw(html: string) {
    room.innerHTML = html
    for (const picture of room.querySelectorAll('img'))
      if (picture.getAttribute('src')?.startsWith('/'))
        picture.src = home + picture.getAttribute('src')
  }
  async function send(event: SubmitEvent) {
    event.preventDefault()
    const drawn = event.target as HTMLFormElement
    if (sending) return
    sending = true
    const body = new URLSearchParams()
    for (const [name, value] of new FormData(drawn, event.submitter))
      body.append(name, String(value))
    for (const [name, value] of new URLSearchParams(location.search))
      if (drawn.querySelector(`[name="h.${CSS.escape(name)}"]`)) body.set(`h.${name}`, value)
    body.set('page', location.href.split(/[?#]/)[0]!)
    drawn.setAttribute('aria-busy', 'true')
    body.set('work', await worked())
    try {
      const answer = await fetch(address, {
        method: 'POST',
        body,
        credentials: 'omit',
        headers: { Accept: 'application/json' },
      })
      const came = (await answer.json()) as Came
      if (came.go) {
        remember('joined', '1')
        return location.assign(came.go)
      }
      draw(came.html)
      if (came.state === 'wrong')
        root.querySelector<HTMLElement>('[aria-invalid],.sup-meant button')?.focus()
      else {
        root.querySelector<HTMLElement>('h2')?.focus()
        remember('joined', '1')
        done()
      }
    } catch {
      // No answer: the form as it is goes by itself, without a script.
      drawn.action = address
      drawn.submit()
    } finally {
      sending = false
      drawn.removeAttribute('aria-busy')
    }
  }
  root.addEventListener('submit', (event) => void send(event as SubmitEvent))
  draw(form.html)
  tellSight(place, { address, language: form.language, begins: root })
  return root
}
