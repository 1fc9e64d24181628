<script setup lang="ts">
/** Which columns, and in which order. */
const props = defineProps<{ columns: { key: string; name: string }[] }>()
const chosen = defineModel<string[]>({ required: true })
/** The chosen ones as they stand, then the others. */
const shown = computed(() => [
  ...chosen.value.flatMap((key) => props.columns.filter((column) => column.key === key)),
  ...props.columns.filter(({ key }) => !chosen.value.includes(key)),
])
function toggle(key: string, on: boolean) {
  chosen.value = on ? [...chosen.value, key] : chosen.value.filter((one) => one !== key)
}
function move(key: string, by: number) {
  const keys = chosen.value.filter((one) => props.columns.some((column) => column.key === one))
  const at = keys.indexOf(key)
  keys.splice(at, 1)
  keys.splice(Math.max(0, at + by), 0, key)
  chosen.value = keys
}
</script>

<template>
  <ul class="m-0 list-none p-0">
    <li v-for="column in shown" :key="column.key" class="flex items-center gap-2 px-1 py-0.5">
      <label class="flex flex-1 items-center gap-2"
        ><input
          type="checkbox"
          :checked="chosen.includes(column.key)"
          @change="toggle(column.key, ($event.target as HTMLInputElement).checked)"
        />{{ column.name }}</label
      >
      <template v-if="chosen.includes(column.key)">
        <button
          type="button"
          class="min-h-6 min-w-6"
          :aria-label="`${column.name} earlier`"
          @click="move(column.key, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="min-h-6 min-w-6"
          :aria-label="`${column.name} later`"
          @click="move(column.key, 1)"
        >
          ↓
        </button>
      </template>
    </li>
  </ul>
</template>
