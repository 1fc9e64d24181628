<script setup lang="ts">
import type { Part } from '~~/core/letters/parts'
import type { PlaceInHtml } from './html-tree'

/** The parts of a block. Apart from what knows the block, so that they are drawn anew only when one of them changes. */
defineProps<{ parts: Part[]; leavesOut: (name: string) => boolean }>()
const emit = defineEmits<{ shape: [highForWide: number] }>()
defineSlots<{ place(place: PlaceInHtml): unknown }>()
</script>

<template>
  <PaperPart
    v-for="(part, i) in parts"
    :key="i"
    :part="part"
    :leaves-out="leavesOut"
    @shape="emit('shape', $event)"
  >
    <template #place="place"><slot name="place" v-bind="place" /></template>
  </PaperPart>
</template>
