<script setup lang="ts">
import { scaleTime } from 'd3'
import { addDays } from '~~/core/time'
import type { SheetMailing, TodaySheet } from '~~/core/results'

/** Fourteen days back and fourteen ahead on one line, with what went out and what will. */
const props = defineProps<{ today: TodaySheet }>()
const { at, dayAndTime } = useTimes()
const box = ref<HTMLElement | null>(null)
const width = ref(1230)
let observer: ResizeObserver | null = null
onMounted(() => {
  observer = new ResizeObserver(
    ([entry]) => (width.value = Math.max(700, entry!.contentRect.width)),
  )
  observer.observe(box.value!)
})
onUnmounted(() => observer?.disconnect())

const LEFT = 96
const x = computed(() => scaleTime([props.today.from, props.today.to], [LEFT, width.value - 12]))
const days = computed(() =>
  Array.from({ length: 28 }, (_, i) => {
    const start = addDays(props.today.from, i, props.today.zone)
    const date = at(start)
    const end = addDays(start, 1, props.today.zone)
    return {
      start,
      x: x.value(start),
      width: x.value(end) - x.value(start),
      label: date.day === 1 ? date.toFormat('d LLL') : String(date.day),
      weekend: date.weekday > 5,
      today: start <= props.today.now && props.today.now < end,
    }
  }),
)
/** Each mailing on the first line where it does not cover another. */
const placed = computed(() => {
  const ends: number[] = []
  return [...props.today.mailings]
    .sort((a, b) => a.at - b.at)
    .map((mailing) => {
      const label = about(mailing)
      const wide = Math.min(
        200,
        Math.max(118, 6 * Math.max(mailing.name.length * 1.06, label.length) + 18),
      )
      const left = Math.min(x.value(mailing.at), width.value - wide - 4)
      let row = ends.findIndex((end) => end < left - 4)
      if (row < 0) row = ends.length
      ends[row] = left + wide
      return { mailing, label, left, wide, row }
    })
})
const rows = computed(() => Math.max(2, ...placed.value.map(({ row }) => row + 1)))
const height = computed(() => 36 + rows.value * 38 + 12)
function about(mailing: SheetMailing) {
  if (mailing.state === 'held')
    return `${dayAndTime(mailing.at).slice(0, 3)} ${at(mailing.at).toFormat('HH:mm')} · ${count(mailing.recipients)} · ${mailingState(mailing)}`
  if (mailing.state === 'scheduled')
    return `${at(mailing.at).toFormat('ccc HH:mm')} · ${count(mailing.recipients)}`
  if (mailing.state === 'sending')
    return `going out, ${count(mailing.delivered)} of ${count(mailing.recipients)}`
  const share = (n: number) => `${Math.round((100 * n) / Math.max(1, mailing.delivered))}%`
  return `${count(mailing.delivered)} · ${share(mailing.opened)} opened · ${share(mailing.clicked)} click`
}
const looks: Record<string, string> = {
  sent: 'border-canvas-300 bg-canvas-100',
  sending: 'border-canvas-500 bg-canvas-200',
  held: 'border-bad-600 bg-bad-100',
  scheduled: 'border-dashed border-canvas-500 bg-sheet',
  draft: 'border-dashed border-ink-300 bg-sheet',
}
</script>

<template>
  <div ref="box" class="relative overflow-hidden" :style="{ height: `${height}px` }">
    <svg
      :width="width"
      :height="height"
      class="absolute inset-0"
      role="img"
      aria-label="Fourteen days back and fourteen ahead"
    >
      <template v-for="day in days" :key="day.start">
        <rect
          v-if="day.weekend"
          :x="day.x"
          y="26"
          :width="day.width"
          :height="height"
          fill="#f6f7f3"
        />
        <text
          :x="day.x + day.width / 2"
          y="18"
          font-size="11.5"
          text-anchor="middle"
          :fill="day.today ? '#7a5410' : '#5c665a'"
          :font-weight="day.today ? 700 : 400"
        >
          {{ day.label }}
        </text>
      </template>
      <line x1="0" :x2="width" y1="28" y2="28" stroke="#ebeee7" />
      <text
        x="14"
        :y="28 + (height - 28) / 2 + 4"
        font-size="12.5"
        fill="#3c433a"
        font-weight="560"
      >
        Mailings
      </text>
      <line
        :x1="x(today.now)"
        :x2="x(today.now)"
        y1="24"
        :y2="height"
        stroke="#c08a1e"
        stroke-width="2"
        stroke-dasharray="5 4"
      />
    </svg>
    <NuxtLink
      v-for="{ mailing, label, left, wide, row } in placed"
      :key="mailing.id"
      :to="mailing.state === 'sent' ? `/results/${mailing.id}` : `/mail/${mailing.id}`"
      class="absolute h-[33px] overflow-hidden rounded border px-[7px] py-0.5 leading-[14px] hover:border-brass-500"
      :class="looks[mailing.state]"
      :style="{ left: `${left}px`, top: `${36 + row * 38}px`, width: `${wide}px` }"
      :title="`${mailing.name}, ${dayAndTime(mailing.at)}`"
    >
      <span class="block truncate text-[12px] font-semibold">{{ mailing.name }}</span><span
        class="block truncate text-[11px] text-ink-700"
        >{{ label }}</span
      >
    </NuxtLink>
  </div>
</template>
