<script setup lang="ts">
import { max, scaleLinear } from 'd3'
import type { PartRates } from '~~/core/results'
import { peopleWho } from './results'

/** A mailing by parts of its people, each rate with its interval: what overlaps may be chance. */
const props = defineProps<{ mailing: number }>()
const by = ref('provider')
const { answer, problem } = useAnswer<{
  by: string
  ways: { key: string; name: string }[]
  parts: PartRates[]
}>(() => `/api/mailings/${props.mailing}/by?what=${encodeURIComponent(by.value)}`)
const WIDTH = 150
const scales = computed(() => {
  const top = (key: 'openRate' | 'clickRate') =>
    Math.min(1, (max(answer.value?.parts ?? [], (part) => part[key].high) ?? 0.01) * 1.02)
  return {
    openRate: scaleLinear([0, top('openRate')], [0, WIDTH]),
    clickRate: scaleLinear([0, top('clickRate')], [0, WIDTH]),
  }
})
const onDevices = computed(() => answer.value?.by === 'device')
const measures = computed(() =>
  onDevices.value ? (['clickRate'] as const) : (['openRate', 'clickRate'] as const),
)
const id = useId()
</script>

<template>
  <section class="sheet col-span-2">
    <div class="sheet-head">
      <h2>
        <label :for="id">By</label>
        <select :id="id" v-model="by" class="field field-sm ml-1 inline-block w-auto font-normal">
          <option v-for="way in answer?.ways ?? []" :key="way.key" :value="way.key">
            {{ way.name }}
          </option>
        </select>
      </h2>
      <span class="small muted">lines are 95% intervals: where they overlap, it may be chance</span>
    </div>
    <p v-if="problem" class="fault p-4" role="alert">{{ problem }}</p>
    <p v-else-if="answer && !answer.parts.length" class="muted p-4">
      {{
        by === 'segment' ? 'None of your segments was among its people.' : 'Nobody opened it yet.'
      }}
    </p>
    <table v-else-if="answer" class="grid-table">
      <thead>
        <tr>
          <th>{{ answer.ways.find(({ key }) => key === answer!.by)?.name }}</th>
          <th class="num">{{ onDevices ? 'Opened' : 'Delivered' }}</th>
          <th v-for="measure in measures" :key="measure">
            {{ measure === 'openRate' ? 'Opened' : onDevices ? 'Clicked, of these' : 'Clicked' }}
          </th>
          <th class="num">Left</th>
          <th v-if="!onDevices" class="num">Bounced</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="part in answer.parts" :key="part.name">
          <td>
            <NuxtLink
              v-if="part.rule"
              class="link"
              :to="peopleWho(props.mailing, 'sent', part.rule)"
              >{{ part.name }}</NuxtLink><template v-else>{{ part.name }}</template>
          </td>
          <td class="num">{{ count(part.delivered) }}</td>
          <td v-for="measure in measures" :key="measure" class="!py-0">
            <span class="flex items-center gap-2"
              ><span class="num w-12">{{ percent(part[measure].rate) }}</span
              ><svg :width="WIDTH + 8" height="20" aria-hidden="true">
                <line
                  :x1="4 + scales[measure](part[measure].low)"
                  :x2="4 + scales[measure](part[measure].high)"
                  y1="10"
                  y2="10"
                  stroke="#bac893"
                  stroke-width="8"
                />
                <circle
                  :cx="4 + scales[measure](part[measure].rate)"
                  cy="10"
                  r="4"
                  fill="#4b5a28"
                />
              </svg>
              <span class="sr-only"
                >between {{ percent(part[measure].low) }} and
                {{ percent(part[measure].high) }}</span
              ></span
            >
          </td>
          <td class="num">{{ count(part.left) }}</td>
          <td v-if="!onDevices" class="num">{{ count(part.bounced) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
