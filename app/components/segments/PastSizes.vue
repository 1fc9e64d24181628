<script setup lang="ts">
import { area, line, max, scaleLinear } from 'd3'

/** What the size of the rule was in the last twelve weeks; it follows the edit. */
const store = useSegment()
const { date } = useTimes()
const [WIDTH, HEIGHT] = [400, 84]
const sizes = computed(() => store.sizes?.sizes ?? [])
const first = computed(() => sizes.value[0])
const last = computed(() => sizes.value.at(-1))
const x = computed(() => scaleLinear([first.value?.at ?? 0, last.value?.at ?? 1], [4, WIDTH - 6]))
const y = computed(() => scaleLinear([0, max(sizes.value, ({ high }) => high) || 1], [HEIGHT, 6]))
const band = computed(
  () =>
    area<(typeof sizes.value)[number]>()
      .x(({ at }) => x.value(at))
      .y0(({ low }) => y.value(low))
      .y1(({ high }) => y.value(high))(sizes.value) ?? '',
)
const outline = computed(
  () =>
    line<(typeof sizes.value)[number]>()
      .x(({ at }) => x.value(at))
      .y(({ size }) => y.value(size))(sizes.value) ?? '',
)
const counted = computed(() => store.sizes && store.sizes.drawn >= store.sizes.everyone)
</script>

<template>
  <section class="sheet" aria-labelledby="past-title">
    <div class="sheet-head">
      <h2 id="past-title">The last twelve weeks</h2>
      <span v-if="first && last" class="small muted">
        {{ counted ? '' : 'about ' }}{{ count(first.size) }} →
        <b class="text-ink-900">{{ count(last.size) }}</b>
      </span>
    </div>
    <p v-if="!store.sizes" class="muted small p-4">Estimated when the rules rest for a moment.</p>
    <template v-else>
      <svg
        :viewBox="`0 0 ${WIDTH} ${HEIGHT + 18}`"
        class="w-full px-3 pt-3"
        role="img"
        :aria-label="`${counted ? '' : 'about '}${count(first!.size)} people twelve weeks ago, ${count(last!.size)} now`"
      >
        <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="#cfd4c9" />
        <path v-if="!counted" :d="band" fill="#e8edd9" />
        <path :d="outline" fill="none" stroke="#5f7030" stroke-width="2" />
        <g v-for="one in sizes" :key="one.at">
          <circle :cx="x(one.at)" :cy="y(one.size)" r="2.5" fill="#5f7030" />
          <rect :x="x(one.at) - 14" y="0" width="28" :height="HEIGHT" fill="transparent">
            <title>
              {{ date(one.at) }}: {{ count(one.size)
              }}{{ one.low < one.high ? `, between ${count(one.low)} and ${count(one.high)}` : '' }}
            </title>
          </rect>
        </g>
        <text x="0" :y="HEIGHT + 15" font-size="11" fill="#5b6459">{{ date(first!.at) }}</text>
        <text :x="WIDTH" :y="HEIGHT + 15" font-size="11" text-anchor="end" fill="#5b6459">
          today
        </text>
      </svg>
      <p class="small muted px-4 pb-3">
        <template v-if="counted">Counted for each week</template>
        <template v-else
          >Estimated from {{ count(store.sizes.drawn) }} of {{ people(store.sizes.everyone) }}; the
          true size lies in the pale band 19 times out of 20</template
        >. Values and tags have no past and are taken as they are now.
      </p>
    </template>
  </section>
</template>
