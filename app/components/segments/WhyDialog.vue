<script setup lang="ts">
import type { Explanation } from '~~/core/segments'

/** Why one person is in a segment, or is not. */
const props = defineProps<{ person: { id: number; name: string } }>()
const emit = defineEmits<{ close: [] }>()
const store = useSegment()
const explanation = shallowRef<Explanation | null>(null)
watch(
  () => [props.person.id, store.rule],
  async () => (explanation.value = await store.why(props.person.id)),
  { immediate: true },
)
</script>

<template>
  <BaseDialog
    open
    :title="`${person.name} ${explanation ? (explanation.holds ? 'is in it' : 'is not in it') : ''}`"
    @close="emit('close')"
  >
    <WhyParts v-if="explanation" :explanation="explanation" :depth="0" />
    <p class="mt-4">
      <NuxtLink :to="`/people/${person.id}`" class="btn btn-sm">Open their page</NuxtLink>
    </p>
  </BaseDialog>
</template>
