<script setup lang="ts">
import type { Condition } from '~~/core/segments'
import { chipsOf } from './conditions'

/** One condition as a sentence whose words can be changed. */
defineProps<{ condition: Condition }>()
const emit = defineEmits<{ change: [condition: Condition] }>()
const store = useSegment()
</script>

<template>
  <span v-if="store.vocabulary" class="flex flex-wrap items-center gap-[5px]">
    <component
      :is="chipsOf[condition.kind]"
      :condition="condition"
      @change="(changed: Condition) => emit('change', changed)"
    />
  </span>
</template>
