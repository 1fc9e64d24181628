import { practiceTime, type PracticeClock } from '~~/core/time'

interface Told {
  now: number
  host: number
  practice: PracticeClock | null
}

/** How long to wait before a refused line is asked for again, ms. */
const AGAIN = 5_000

/** What the server tells as it happens: that something changed, and the clock. */
export const useLive = defineStore('live', () => {
  /** Counts the changes; watch it to ask again for what is shown. */
  const changes = ref(0)
  const practice = ref<PracticeClock | null>(null)
  const now = ref(Date.now())
  const connected = ref(true)
  let ahead = 0
  let source: EventSource | null = null
  let tick: ReturnType<typeof setInterval> | null = null
  let again: ReturnType<typeof setTimeout> | undefined

  function take(told: Told) {
    practice.value = told.practice
    ahead = told.host - Date.now()
    step()
  }
  function step() {
    const host = Date.now() + ahead
    now.value = practice.value ? practiceTime(practice.value, host) : host
  }
  function begin() {
    if (source) return
    listen()
    tick = setInterval(step, 500)
  }
  function listen() {
    const opened = (source = new EventSource('/api/live'))
    opened.onmessage = (message: MessageEvent<string>) => {
      connected.value = true
      take(JSON.parse(message.data) as Told)
      changes.value++
    }
    // A broken line opens itself again; one that was refused stays closed and is opened anew.
    opened.onerror = () => {
      connected.value = false
      if (opened.readyState === EventSource.CLOSED && opened === source)
        again = setTimeout(listen, AGAIN)
    }
  }
  function end() {
    clearTimeout(again)
    source?.close()
    source = null
    if (tick) clearInterval(tick)
  }
  async function setClock(change: { rate?: number; jumpTo?: number }) {
    const answer = await act<{ practice: PracticeClock | null }>('/api/clock', 'POST', change)
    if (answer) {
      practice.value = answer.practice
      step()
    }
  }
  return { changes, practice, now, connected, begin, end, setClock }
})
