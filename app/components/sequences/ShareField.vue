<script setup lang="ts">
import { wayName, type Drawn } from '~~/core/sequences'
import { mostFor, withShare } from './shares'

/** The share of one that is drawn by lot, besides the first. */
const props = defineProps<{ drawn: readonly Drawn[]; n: number }>()
const emit = defineEmits<{ change: [drawn: Drawn[]] }>()
function take(text: string) {
  const changed = text.trim() === '' ? null : withShare(props.drawn, props.n, Number(text))
  if (changed) emit('change', changed)
}
</script>

<template>
  <KeptInput
    class="field field-sm w-20 text-right"
    type="number"
    min="0.1"
    :max="mostFor(drawn, n)"
    step="0.1"
    :aria-label="`Share of ${wayName(n + 1)}, percent`"
    :value="drawn[n]!.share / 10"
    @taken="take($event)"
  />
</template>
