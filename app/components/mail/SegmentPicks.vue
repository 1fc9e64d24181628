<script setup lang="ts">
import { X } from '@lucide/vue'

/** Some of the account's segments: each can be taken away, and one more can be added. */
const props = defineProps<{
  label: string
  /** The word between two of them. */
  joined: string
  segments: readonly { id: number; name: string }[]
  chosen: readonly number[]
  /** The last one stays. */
  keepOne?: boolean
}>()
const emit = defineEmits<{ choose: [ids: number[]] }>()
const rest = computed(() => props.segments.filter(({ id }) => !props.chosen.includes(id)))
const nameOf = (id: number) =>
  props.segments.find((segment) => segment.id === id)?.name ?? 'deleted'
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  emit('choose', [...props.chosen, Number(select.value)])
  select.value = ''
}
</script>

<template>
  <span class="flex flex-wrap items-center gap-x-2 gap-y-1.5">
    <template v-for="(id, at) in chosen" :key="id">
      <span v-if="at" class="muted">{{ joined }}</span>
      <span class="chip inline-flex items-center gap-1"
        ><NuxtLink :to="`/people/segments/${id}`" class="hover:underline">{{ nameOf(id) }}</NuxtLink
        ><button
          v-if="!keepOne || chosen.length > 1"
          class="icon-btn"
          :aria-label="`Remove ${nameOf(id)}`"
          @click="
            emit(
              'choose',
              chosen.filter((one) => one !== id),
            )
          "
        >
          <X :size="13" aria-hidden="true" /></button
      ></span>
    </template>
    <select
      v-if="rest.length"
      class="field field-sm !w-auto"
      :aria-label="label"
      value=""
      @change="add"
    >
      <option value="">{{ chosen.length ? 'one more…' : 'choose a segment' }}</option>
      <option v-for="segment in rest" :key="segment.id" :value="segment.id">
        {{ segment.name }}
      </option>
    </select>
  </span>
</template>
