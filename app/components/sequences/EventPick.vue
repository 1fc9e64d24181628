<script setup lang="ts">
/** Which event is meant, of those on file and the one that is meant already. */
const props = defineProps<{ label: string; name: string; none?: string }>()
const emit = defineEmits<{ change: [name: string] }>()
const store = useSequence()
const events = computed(() => {
  const known = store.sequence!.events
  return props.name && !known.includes(props.name) ? [...known, props.name] : known
})
</script>

<template>
  <select
    class="field field-sm"
    :aria-label="label"
    :value="name"
    @change="emit('change', ($event.target as HTMLSelectElement).value)"
  >
    <option v-if="none || !name" value="">
      {{ none ?? (events.length ? 'choose an event' : 'no event is on file yet') }}
    </option>
    <option v-for="one in events" :key="one" :value="one">{{ one }}</option>
  </select>
</template>
