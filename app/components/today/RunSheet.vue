<script setup lang="ts">
import { scaleTime } from 'd3'
import { addDays } from '~~/core/time'
import {
  SHEET_SEQUENCES,
  type SequenceDays,
  type SheetMailing,
  type TodaySheet,
} from '~~/core/results'

/** Fourteen days back and fourteen ahead on one line, with what went out and what will, of mailings and of sequences. */
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

const LEFT = 132
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
const { answer: mail, problem } = useAnswer<SequenceDays[]>(() => '/api/today/sequences', {
  sparing: true,
})
const LANE = 26
/** A line for each sequence: its mail by days, once it is known. */
const lanes = computed(() => {
  const top = 36 + rows.value * 38 + 8
  return props.today.sequences.slice(0, SHEET_SEQUENCES).map((sequence, row) => {
    const isHere = ({ id, from }: SequenceDays) => id === sequence.id && from === props.today.from
    // A sheet that began on another day is of no use to this one.
    const of = mail.value?.find(isHere)
    const most = Math.max(1, ...(of ? [...of.sent, ...of.coming] : []))
    const cells = days.value.flatMap((day, n) => {
      const [sent, coming] = [of?.sent[n] ?? 0, of?.coming[n] ?? 0]
      if (sent + coming === 0) return []
      const words = [
        ...(sent ? [`${count(sent)} sent`] : []),
        ...(coming ? [`${count(coming)} to come`] : []),
      ]
      const title = `${sequence.name}, ${at(day.start).toFormat('d LLL')}: ${words.join(', ')}`
      const style = { left: `${day.x + 2}px`, width: `${day.width - 4}px` }
      return { n, title, style, look: lookOf(sent, coming, most), many: sent + coming }
    })
    const sum = (days: readonly number[]) => days.reduce((all, one) => all + one, 0)
    const told = of && `${count(sum(of.sent))} mails sent, ${count(sum(of.coming))} to come`
    return { ...sequence, top: top + row * LANE, cells, told, isKnown: of !== undefined }
  })
})
const others = computed(() => props.today.sequences.length - lanes.value.length)
/** The more a day has of it, the darker; what is to come is outlined. */
function lookOf(sent: number, coming: number, most: number): string {
  if (!sent) return 'border border-dashed border-canvas-500 bg-sheet'
  const tone = sent > most / 2 ? 'bg-canvas-200' : 'bg-canvas-100'
  return coming ? `border border-dashed border-canvas-500 ${tone}` : tone
}
const rows = computed(() => Math.max(2, ...placed.value.map(({ row }) => row + 1)))
const mailingsHeight = computed(() => 36 + rows.value * 38)
const height = computed(
  () =>
    mailingsHeight.value +
    12 +
    (lanes.value.length ? lanes.value.length * LANE + (others.value ? 20 : 0) : 0),
)
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
        :y="28 + (mailingsHeight - 28) / 2 + 4"
        font-size="12.5"
        fill="#3c433a"
        font-weight="560"
      >
        Mailings
      </text>
      <line
        v-if="lanes.length"
        x1="0"
        :x2="width"
        :y1="mailingsHeight + 2"
        :y2="mailingsHeight + 2"
        stroke="#ebeee7"
      />
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
    <div
      v-for="lane in lanes"
      :key="`sequence ${lane.id}`"
      class="absolute inset-x-0 h-[26px]"
      :style="{ top: `${lane.top}px` }"
      data-sequence
    >
      <NuxtLink
        :to="`/sequences/${lane.id}?view=results`"
        class="absolute left-3.5 w-[114px] truncate text-[12.5px] leading-[26px] font-[560] text-ink-700 hover:underline"
        :title="lane.name"
        >{{ lane.name
        }}<span class="sr-only"
          >{{ lane.state === 'paused' ? ', paused' : ''
          }}{{ lane.told ? `: ${lane.told}` : '' }}</span
        ></NuxtLink
      >
      <span
        v-for="cell in lane.cells"
        :key="cell.n"
        class="absolute top-[3px] h-5 rounded-sm text-center text-[11px] leading-5 text-ink-700"
        :class="cell.look"
        :style="cell.style"
        :title="cell.title"
        aria-hidden="true"
        >{{ count(cell.many) }}</span
      >
      <span
        v-if="!lane.cells.length"
        class="muted small absolute leading-[26px]"
        :style="{ left: `${LEFT + 4}px` }"
        >{{
          lane.isKnown
            ? lane.state === 'paused'
              ? 'paused: nothing goes out'
              : 'no mail in these days'
            : (problem ?? 'counting…')
        }}</span
      >
    </div>
    <NuxtLink v-if="others > 0" to="/sequences" class="link small absolute bottom-1.5 left-3.5">{{
      several(others, 'other sequence', 'other sequences')
    }}</NuxtLink>
  </div>
</template>
