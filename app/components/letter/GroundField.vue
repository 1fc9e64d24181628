<script setup lang="ts">
import { colorOfGround, grounds, isGround, type Ground, type Letterhead } from '~~/core/letters'

/** What is behind a row or a block: a ground of the letterhead, by what it is for, or a colour of its own. */
const props = defineProps<{ id: string; ground: string | undefined; look: Letterhead }>()
const emit = defineEmits<{ change: [ground: string | undefined] }>()
const names: Record<Ground, string> = {
  paper: 'paper',
  soft: 'soft',
  strong: 'strong',
  accent: 'accent',
}
const color = computed(() => colorOfGround(props.look, props.ground))
const chosen = computed(() =>
  props.ground === undefined ? '' : isGround(props.ground) ? props.ground : 'own',
)
function choose(value: string) {
  if (value === '') emit('change', undefined)
  else emit('change', value === 'own' ? (color.value ?? '#ffffff') : value)
}
const given = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <span class="flex min-w-0 items-center gap-2">
    <select :id="id" class="field field-sm min-w-0" :value="chosen" @change="choose(given($event))">
      <option value="">none</option>
      <option v-for="one in grounds" :key="one" :value="one">{{ names[one] }}</option>
      <option value="own">a colour</option>
    </select>
    <input
      v-if="chosen === 'own'"
      type="color"
      class="h-6 w-9 flex-none rounded border border-line bg-sheet"
      aria-label="Background colour"
      :value="color"
      @change="emit('change', given($event))"
    />
    <span
      v-else-if="color"
      class="h-5 w-5 flex-none rounded border border-line"
      :style="{ background: color }"
    />
  </span>
</template>
