<script setup lang="ts">
import { joinsFor, sideWay } from '~~/core/sequences'
import { stepWords } from './words'

/** Where a side way of a step comes together with the others. */
const props = defineProps<{ id: string; way: number; label: string }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const side = computed(() => sideWay(of.value.map, props.id, props.way))
const targets = computed(() =>
  joinsFor(of.value.map, props.id)
    .filter((id) => !side.value.steps.includes(id))
    .map((id) => ({ id, words: stepWords(of.value.map.steps[id]!, of.value) })),
)
const join = (event: Event) =>
  void store.joinWay(props.id, props.way, (event.target as HTMLSelectElement).value || null)
</script>

<template>
  <label class="flex items-center gap-2"
    ><span class="muted small whitespace-nowrap">then on to</span>
    <select
      class="field field-sm min-w-0"
      :aria-label="label"
      :value="side.joins ?? ''"
      @change="join"
    >
      <option v-for="one in targets" :key="one.id" :value="one.id">{{ one.words }}</option>
      <option value="">Finish</option>
    </select></label
  >
</template>
