import { practiceTime, type PracticeClock } from '~~/core/time'

interface Told {
  now: number
  host: number
  practice: PracticeClock | null
}

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
    source = new EventSource('/api/live')
    source.onmessage = (message: MessageEvent<string>) => {
      connected.value = true
      take(JSON.parse(message.data) as Told)
      changes.value++
    }
    source.onerror = () => (connected.value = false)
    tick = setInterval(step, 500)
  }
  function end() {
    source?.close()
    source = null
    if (tick) clearInterval(tick)
  }
  async function setClock(change: { rate?: number; jumpTo?: number }) {
    const answer = await ask<{ practice: PracticeClock | null }>('/api/clock', {
      method: 'POST',
      body: change,
    })
    if (answer) {
      practice.value = answer.practice
      step()
    }
  }
  return { changes, practice, now, connected, begin, end, setClock }
})
