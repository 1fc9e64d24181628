<script setup lang="ts">
/** On which screens a row or a block is left out. */
type Hidden = 'narrow' | 'wide' | undefined
defineProps<{ hidden: Hidden }>()
const emit = defineEmits<{ change: [hidden: Hidden] }>()
const id = useId()
const given = (event: Event) => (event.target as HTMLSelectElement).value || undefined
</script>

<template>
  <div class="grid grid-cols-[92px_1fr] items-center gap-x-2.5 text-[12.5px]">
    <label :for="id">Hide</label>
    <select
      :id="id"
      class="field field-sm"
      :value="hidden ?? ''"
      @change="emit('change', given($event) as Hidden)"
    >
      <option value="">nowhere</option>
      <option value="narrow">on phones</option>
      <option value="wide">on desktops</option>
    </select>
  </div>
</template>
