<script setup lang="ts">
import { FEWEST_A_WAY, judgedBy, judgedHow, type Judged } from '~~/core/sequences'

/** By what those that are drawn by lot are judged, and what comes of that. */
const props = defineProps<{
  judged: Judged | undefined
  /** What is judged: "ways", "versions". */
  what: string
  /** Since when the days count: "of coming by". */
  since: string
  /** What it can be judged by, in words. */
  kinds?: Partial<Record<Judged['by'], string>>
}>()
const emit = defineEmits<{ change: [judged: Judged | undefined] }>()
const fresh: Judged = { by: 'goal', days: 7, how: 'self' }
const judge = (change: Partial<Judged>) => emit('change', { ...(props.judged ?? fresh), ...change })
const value = (event: Event) => (event.target as HTMLSelectElement).value
function chooseBy(by: string) {
  if (by === '') emit('change', undefined)
  else judge({ by: by as Judged['by'] })
}
function setDays(days: number) {
  if (Number.isFinite(days)) judge({ days: Math.round(Math.min(90, Math.max(1, days))) })
}
</script>

<template>
  <div class="grid gap-2 border-t border-line-soft pt-2">
    <label class="grid gap-1"
      ><span class="muted small">Its {{ what }} are judged by who</span>
      <select class="field field-sm" :value="judged?.by ?? ''" @change="chooseBy(value($event))">
        <option value="">not judged</option>
        <option v-for="(name, by) in { ...judgedBy, ...kinds }" :key="by" :value="by">
          {{ name }}
        </option>
      </select></label
    >
    <template v-if="judged">
      <label class="flex items-center gap-2"
        ><span class="muted small">within</span>
        <KeptInput
          class="field field-sm w-20 text-right"
          type="number"
          min="1"
          max="90"
          aria-label="Within how many days"
          :value="judged.days"
          @taken="setDays(Number($event))"
        />
        <span class="muted small">days {{ since }}</span></label
      >
      <label class="grid gap-1"
        ><span class="muted small">And then</span>
        <select
          class="field field-sm"
          :value="judged.how"
          @change="judge({ how: value($event) as Judged['how'] })"
        >
          <option v-for="(name, how) in judgedHow" :key="how" :value="how">{{ name }}</option>
        </select></label
      >
      <p class="muted small">
        {{
          judged.how === 'hand'
            ? 'How they compare is shown under Results.'
            : `Not before ${FEWEST_A_WAY} people each, and their days are over. It holds for who comes from then on.`
        }}
      </p>
    </template>
  </div>
</template>
