import { mayShow } from '../core/sign-ups/placement'
import type { DrawnForm } from './forms'
import { recall, remember } from './memory'
import { placeForm } from './place'

/** A pop-over that waits for its moment. */
export interface Waiting {
  form: DrawnForm
  home: string
}

/** How a pop-over stands on the page; its own style is within. */
const frames = {
  middle: 'inset:0;margin:auto;width:min(440px,calc(100vw - 24px));max-height:calc(100vh - 24px)',
  corner:
    'inset-block:auto 20px;inset-inline:auto 20px;margin:0;width:min(380px,calc(100vw - 24px));max-height:calc(100vh - 40px)',
  bar: 'inset:auto 0 0 0;margin:0;width:100vw;max-width:100vw;max-height:70vh',
}

/** One at a time: the first whose moment comes is shown, and the others wait until it is closed. */
let open = false

export function showPopOvers(waiting: readonly Waiting[]) {
  const query = new URLSearchParams(location.search)
  for (const one of waiting) {
    const { placement, key } = one.form
    const closed = Number(recall(`closed:${key}`))
    const may = mayShow(placement, {
      ...{
        path: location.pathname,
        width: innerWidth,
        now: Date.now(),
        joined: recall('joined') !== null,
      },
      referrer: document.referrer ? new URL(document.referrer).hostname : '',
      source: query.get('utm_source') ?? '',
      medium: query.get('utm_medium') ?? '',
      closedAt: closed || null,
    })
    // Who presses the element that opens it wants to see it, whatever else is so.
    if (placement.onPress) onPress(placement.onPress, () => show(one))
    if (may) onMoment(one, () => show(one))
  }
}

function onPress(selector: string, then: () => void) {
  document.addEventListener('click', (event) => {
    const on = event.target as Element | null
    try {
      if (!on?.closest(selector)) return
    } catch {
      return
    }
    event.preventDefault()
    then()
  })
}

function onMoment({ form: { placement } }: Waiting, then: () => void) {
  let over = false
  const once = () => {
    if (over || open) return
    over = true
    then()
  }
  const { afterSeconds, afterShare, onLeaving } = placement
  if (afterSeconds !== null) setTimeout(once, afterSeconds * 1_000)
  if (afterShare !== null)
    addEventListener(
      'scroll',
      () => {
        const whole = document.documentElement.scrollHeight - innerHeight
        if (whole > 0 && (scrollY / whole) * 100 >= afterShare) once()
      },
      { passive: true },
    )
  if (onLeaving)
    document.addEventListener('mouseout', (event) => {
      if (!event.relatedTarget && event.clientY <= 0) once()
    })
}

function show({ form, home }: Waiting) {
  if (open) return
  open = true
  const host = document.createElement('div')
  const before = document.activeElement as HTMLElement | null
  document.body.append(host)
  const shadow = host.attachShadow({ mode: 'open' })
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(
    `dialog{position:fixed;padding:0;border:0;overflow:auto;background:none;z-index:2147483000;box-shadow:0 10px 40px rgb(0 0 0/.24);border-radius:12px;${frames[form.placement.position]}}
dialog::backdrop{background:rgb(0 0 0/.45)}
.close{position:absolute;inset-block-start:6px;inset-inline-end:6px;width:36px;height:36px;border:0;border-radius:18px;background:none;font:22px/1 sans-serif;color:inherit;cursor:pointer}
.close:hover{background:rgb(0 0 0/.08)}.close:focus-visible{outline:3px solid currentColor}
@media(prefers-reduced-motion:no-preference){dialog{animation:in .18s ease-out}@keyframes in{from{opacity:0;translate:0 8px}}}`,
  )
  shadow.adoptedStyleSheets = [sheet]
  const dialog = document.createElement('dialog')
  const place = document.createElement('div')
  const close = document.createElement('button')
  close.className = 'close'
  close.textContent = '×'
  close.type = 'button'
  close.setAttribute('aria-label', 'Close')
  dialog.append(place, close)
  shadow.append(dialog)
  let joined = false
  const root = placeForm(place, form, home, () => (joined = true))
  dialog.setAttribute('aria-label', root.querySelector('h2')?.textContent ?? '')
  function end() {
    if (!joined) remember(`closed:${form.key}`, String(Date.now()))
    host.remove()
    open = false
    before?.focus?.()
  }
  close.addEventListener('click', () => dialog.close())
  dialog.addEventListener('close', end)
  // In the middle it holds the keys until it is closed; at an edge the page stays in use beside it.
  if (form.placement.position === 'middle') dialog.showModal()
  else {
    dialog.show()
    addEventListener('keydown', (event) => event.key === 'Escape' && dialog.open && dialog.close())
  }
}
