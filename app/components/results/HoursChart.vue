<script setup lang="ts">
import { max, scaleLinear } from 'd3'
import { HOUR } from '~~/core/time'
import type { HourCount } from '~~/core/results'

/**
 * First opens and clicks an hour, for the first two days: since the mailing began at `start`, or, where that is null, since
 * each got it.
 */
const props = defineProps<{
  hours: HourCount[]
  later: number
  halfTime: number | null
  start: number | null
}>()
const { time, dayAndTime } = useTimes()
const up = computed(() =>
  scaleLinear([0, Math.max(1, max(props.hours, ({ opens }) => opens) ?? 1)], [0, 128]),
)
const WIDE = 460 / 48
const half = computed(() => {
  if (props.halfTime === null) return ''
  if (props.start === null) return `half of all opens within ${lasting(props.halfTime)}`
  const at = props.start + props.halfTime
  return `half of all opens by ${props.halfTime < 20 * HOUR ? time(at) : dayAndTime(at)}`
})
const any = computed(() => props.hours.some(({ opens }) => opens > 0))
</script>

<template>
  <svg
    viewBox="0 0 460 164"
    class="mt-2 w-full"
    role="img"
    :aria-label="`Opens and clicks an hour. ${half}`"
  >
    <g v-for="{ hour, opens, clicks } in hours" :key="hour">
      <rect
        :x="hour * WIDE"
        :y="140 - up(opens)"
        :width="WIDE - 1.4"
        :height="up(opens)"
        fill="#98aa66"
      />
      <rect
        :x="hour * WIDE"
        :y="140 - up(clicks)"
        :width="WIDE - 1.4"
        :height="up(clicks)"
        fill="#37628f"
      />
    </g>
    <line x1="0" x2="460" y1="140" y2="140" stroke="#3c433a" />
    <text
      v-for="hour in [12, 24, 36]"
      :key="hour"
      :x="hour * WIDE"
      y="156"
      font-size="12"
      fill="#5c665a"
    >
      +{{ hour }} h
    </text>
    <text x="0" y="156" font-size="12" fill="#5c665a">
      {{ start === null ? 'accepted' : time(start) }}
    </text>
  </svg>
  <p class="small muted">
    <template v-if="any"
      ><span class="text-[#66752b]">■</span> opens and <span class="text-[#37628f]">■</span> clicks
      an hour<template v-if="start === null"> since each got it</template
      ><template v-if="half">; {{ half }}</template
      ><template v-if="later">; {{ count(later) }} opened after two days</template></template
    ><template v-else>Nobody has opened it yet; opens come in here as they happen.</template>
  </p>
</template>
