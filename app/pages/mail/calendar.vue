<script setup lang="ts">
import { DateTime } from 'luxon'
import type { CalendarLoad } from '~~/server/asker/questions'

interface Planned {
  id: number
  name: string
  state: string
  held_by: string | null
  at: number
  /** The wished day and time of what is scheduled, as on a wall. */
  wish: string | null
  /** The wish is that of each reader's own clock. */
  localTime: boolean
}
const WEEKS = 5
const route = useRoute()
const live = useLive()
const notices = useNotices()
const { at, time } = useTimes()
const { today } = useToday()
/** The Monday the page begins with: last week's, or as the address says. */
const first = computed(() => {
  const asked = DateTime.fromISO(String(route.query.from ?? ''))
  const day = asked.isValid ? asked : DateTime.fromISO(today()).minus({ weeks: 1 })
  return day.startOf('week')
})
const days = computed(() =>
  Array.from({ length: WEEKS * 7 }, (_, i) => first.value.plus({ days: i }).toISODate()!),
)
const range = computed(() => `from=${days.value[0]}&to=${days.value.at(-1)}`)
const { answer } = useAnswer<{ mailings: Planned[]; address: string }>(
  () => `/api/calendar?${range.value}`,
)
const view = useLabelView('mailing', 'calendar')
const { answer: loads } = useAnswer<CalendarLoad>(() => `/api/calendar/load?${range.value}`)
/** By mailing: where it was moved to here, until the server answers with it; it is shown there at once. */
const moved = reactive(new Map<number, string>())
const mailings = computed(
  () =>
    view
      .kept(answer.value?.mailings ?? null)
      ?.map((one) => ({ ...one, wish: moved.get(one.id) ?? one.wish })) ?? [],
)
watch(answer, (now) => {
  for (const { id, wish } of now?.mailings ?? []) if (moved.get(id) === wish) moved.delete(id)
})
const byDay = computed(() => {
  const found = new Map<string, Planned[]>()
  for (const mailing of mailings.value) {
    const day = mailing.wish?.slice(0, 10) ?? at(mailing.at).toISODate()!
    found.set(day, [...(found.get(day) ?? []), mailing])
  }
  return found
})
const loadOf = (day: string) => loads.value?.find((load) => load.day === day)
/** What else has mail on a day: mailings that began on another one, by tiers, hours or clocks, and sequences. */
const alsoOn = (day: string) => {
  const shown = new Set(byDay.value.get(day)?.map(({ id }) => id))
  const further = (loadOf(day)?.mailings ?? []).flatMap(({ id, people: many }) => {
    const mailing = mailings.value.find((one) => one.id === id)
    return shown.has(id) || !mailing ? [] : [{ id, name: mailing.name, many }]
  })
  return further
}
const dragged = ref<Planned | null>(null)
const over = ref<string | null>(null)

/** Moves a scheduled mailing to another day: the wished day and time on the wall, on whosever clock it is. */
async function move(mailing: Planned, day: string) {
  if (mailing.state !== 'scheduled' || !mailing.wish || mailing.wish.startsWith(day)) return
  await setWish(mailing, `${day}${mailing.wish.slice(10)}`)
}
async function setWish(mailing: Planned, wish: string, undo = true) {
  moved.set(mailing.id, wish)
  // Whoever moved it stays on it: it is drawn anew in another day.
  void nextTick(() =>
    document.querySelector<HTMLElement>(`[data-mailing="${mailing.id}"]`)?.focus(),
  )
  const done = await act<{ was: string; at: number }>(`/api/mailings/${mailing.id}/move`, 'POST', {
    wish,
  })
  if (!done && moved.get(mailing.id) === wish) moved.delete(mailing.id)
  live.changes++
  if (!done) return
  notices.say(
    `“${mailing.name}” goes out ${DateTime.fromISO(wish, { locale: 'en-GB' }).toFormat('ccc d LLL HH:mm')}${mailing.localTime ? ' on each reader’s own clock' : ''}.`,
    undo ? { label: 'Undo', run: () => setWish(mailing, done.was, false) } : undefined,
  )
}
function drop(day: string) {
  over.value = null
  if (dragged.value) void move(dragged.value, day)
  dragged.value = null
}
const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }
/** Alt with an arrow moves a mailing by a day or a week, as dragging does. */
function byKey(event: KeyboardEvent, mailing: Planned) {
  const step = event.altKey ? steps[event.key] : undefined
  if (step === undefined) return
  event.preventDefault()
  if (mailing.wish)
    void move(mailing, DateTime.fromISO(mailing.wish).plus({ days: step }).toISODate()!)
}
async function copyAddress() {
  await navigator.clipboard.writeText(answer.value!.address)
  notices.say('The calendar’s address is copied. Whoever has it can read it.')
}
const turned = (weeks: number) => ({
  query: { ...route.query, from: first.value.plus({ weeks }).toISODate()! },
})
</script>

<template>
  <div class="flex h-full flex-col px-5 py-4">
    <div class="mb-3 flex items-center gap-3">
      <h1>Calendar</h1>
      <span class="muted"
        >{{ first.toFormat('d LLL') }} to
        {{ first.plus({ days: WEEKS * 7 - 1 }).toFormat('d LLL yyyy') }}</span
      >
      <NuxtLink class="btn btn-sm" :to="turned(-WEEKS)">Earlier</NuxtLink>
      <NuxtLink class="btn btn-sm" :to="{ query: { ...route.query, from: undefined } }"
        >Now</NuxtLink
      >
      <NuxtLink class="btn btn-sm" :to="turned(WEEKS)">Later</NuxtLink>
      <LabelView class="w-[180px]" :view="view" no-groups />
      <span class="ml-auto flex items-center gap-3">
        <span v-if="view.label" class="muted small">Figures at the days are of all mail</span>
        <span v-else class="muted small"
          >Drag what is scheduled, or <kbd class="tag">Alt</kbd> and an arrow</span
        >
        <button v-if="answer" class="btn btn-sm" @click="copyAddress">Address for calendars</button>
        <a v-if="answer" class="btn btn-sm" :href="answer.address" download="mail.ics"
          >As iCalendar</a
        >
      </span>
    </div>
    <div
      class="grid min-h-0 flex-1 grid-cols-7 overflow-y-auto border-t border-l border-line bg-sheet"
      :style="{ gridTemplateRows: `24px repeat(${WEEKS}, minmax(96px, auto))` }"
      tabindex="0"
      role="group"
      aria-label="Five weeks"
    >
      <span
        v-for="name in ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']"
        :key="name"
        class="muted small border-r border-b border-line px-2 leading-6"
        >{{ name }}</span
      >
      <section
        v-for="day in days"
        :key="day"
        class="flex min-w-0 flex-col gap-1 border-r border-b border-line px-1.5 pt-1 pb-1.5"
        :class="[
          day === today() && 'outline-2 -outline-offset-2 outline-brass-500 outline-dashed',
          over === day ? 'bg-brass-100' : day < today() && 'bg-paper',
        ]"
        :aria-label="DateTime.fromISO(day).toFormat('cccc d LLLL')"
        @dragover.prevent="over = day"
        @dragleave="over === day && (over = null)"
        @drop.prevent="drop(day)"
      >
        <span class="flex items-baseline justify-between gap-1.5"
          ><span class="small flex-none font-semibold">{{
            DateTime.fromISO(day).toFormat(day.endsWith('-01') ? 'd LLL' : 'd')
          }}</span
          ><span v-if="loadOf(day)" class="muted min-w-0 text-right text-[11px] leading-[15px]"
            ><template v-if="loadOf(day)!.people">{{ people(loadOf(day)!.people) }}</template
            ><b v-if="loadOf(day)!.several" class="font-semibold text-warn-600">
              · {{ count(loadOf(day)!.several) }} get several</b
            >{{ ' '
            }}<b v-if="loadOf(day)!.held" class="font-semibold text-bad-600">
              {{ loadOf(day)!.people ? ' · ' : '' }}{{ count(loadOf(day)!.held) }} held</b
            ></span
          ></span
        >
        <NuxtLink
          v-for="mailing in byDay.get(day)"
          :key="mailing.id"
          :to="`/mail/${mailing.id}`"
          :data-mailing="mailing.id"
          class="block rounded border px-1.5 py-0.5 text-[12px] leading-4"
          :class="
            mailing.state === 'scheduled'
              ? 'cursor-grab border-dashed border-brass-500 bg-brass-100'
              : mailing.state === 'held'
                ? 'border-bad-600 bg-bad-100'
                : 'border-line bg-sheet'
          "
          :draggable="mailing.state === 'scheduled'"
          @dragstart="dragged = mailing"
          @dragend="((dragged = null), (over = null))"
          @keydown="byKey($event, mailing)"
        >
          <span class="block truncate font-semibold">{{ mailing.name }}</span>
          <span class="block truncate"
            >{{ mailing.wish?.slice(11) ?? time(mailing.at)
            }}{{ mailing.localTime && mailing.wish ? ' their time' : '' }} ·
            {{ mailingState(mailing) }}</span
          >
        </NuxtLink>
        <NuxtLink
          v-for="also in alsoOn(day)"
          :key="`also ${also.id}`"
          :to="`/mail/${also.id}`"
          class="muted block truncate px-1.5 text-[11.5px] leading-4"
          :title="`${also.name} goes on: ${people(also.many)}`"
          >{{ also.name }} goes on: {{ count(also.many) }}</NuxtLink
        >
        <NuxtLink
          v-if="loadOf(day)?.ofSequences"
          to="/sequences"
          class="muted block truncate px-1.5 text-[11.5px] leading-4"
          >Sequences: {{ count(loadOf(day)!.ofSequences) }}</NuxtLink
        >
      </section>
    </div>
  </div>
</template>
