/** What was entered, until the server has it. */
interface Kept {
  id: string
  body: string
}
/** How long thanks stand before the next person. */
const THANKS = 7_000
const AGAIN = 10_000

const room = document.querySelector('main')!
const said = document.querySelector<HTMLElement>('#desk-state')!
const first = room.innerHTML
const place = `sign-up:desk:${location.pathname}`
let kept: Kept[] = JSON.parse(localStorage.getItem(place) ?? '[]') as Kept[]
let clearing = 0

/**
 * A tablet at a stand: the form fills the screen, clears itself after each person, and what is entered while the line is down
 * is kept in this browser and handed in later; each once, by an id of its own.
 */
function keep(next: Kept[]) {
  kept = next
  localStorage.setItem(place, JSON.stringify(kept))
  said.textContent = kept.length ? said.dataset.kept!.replace('{many}', String(kept.length)) : ''
}

function clear() {
  clearTimeout(clearing)
  room.innerHTML = first
}

/** Hands one in: its answer, or null where no line is. */
async function handIn(one: Kept): Promise<{ state: string; html: string } | null> {
  try {
    const answer = await fetch(location.href, {
      method: 'POST',
      body: new URLSearchParams(`${one.body}&entry=${one.id}`),
      headers: { Accept: 'application/json' },
      credentials: 'omit',
    })
    return answer.ok ? ((await answer.json()) as { state: string; html: string }) : null
  } catch {
    return null
  }
}

async function send(event: SubmitEvent) {
  event.preventDefault()
  const drawn = event.target as HTMLFormElement
  if (drawn.getAttribute('aria-busy')) return
  drawn.setAttribute('aria-busy', 'true')
  const body = new URLSearchParams()
  for (const [key, value] of new FormData(drawn, event.submitter)) body.append(key, String(value))
  const one = { id: crypto.randomUUID(), body: String(body) }
  const came = await handIn(one)
  if (!came) {
    // Without a line nobody says whether it is right; the browser looks at what it can.
    const boxes = [...drawn.querySelectorAll<HTMLInputElement>('input[name^="t."]')]
    const ticked = boxes.length === 0 || boxes.some(({ checked }) => checked)
    boxes[0]?.setCustomValidity(ticked ? '' : said.dataset.tick!)
    if (!drawn.reportValidity()) return void drawn.removeAttribute('aria-busy')
    // Whoever entered it has gone by then, and can't be asked about a slip.
    keep([...kept, { ...one, body: `${one.body}&sure=yes` }])
    room.innerHTML = document.querySelector<HTMLTemplateElement>('#desk-thanks')!.innerHTML
  } else room.innerHTML = came.html
  if (came?.state === 'wrong') return
  room.querySelector<HTMLElement>('h2')?.focus()
  clearing = window.setTimeout(clear, THANKS)
}

async function handInKept() {
  for (const one of kept) {
    const came = await handIn(one)
    if (!came) break
    keep(kept.filter(({ id }) => id !== one.id))
  }
  setTimeout(() => void handInKept(), AGAIN)
}

/** Keeps the page in this browser, so that it can be loaded again while the line is down. */
async function keepPage() {
  if (!('serviceWorker' in navigator)) return
  await navigator.serviceWorker.register('/s/desk-kept.js')
  const kept = await caches.open('sign-up desk')
  const pictures = [...document.images].map(({ src }) => src)
  await kept.addAll([...new Set([location.href, '/s/desk.js', ...pictures])])
}

void keepPage().catch(() => {})
room.addEventListener('submit', (event) => void send(event as SubmitEvent))
keep(kept)
void handInKept()

export {}
