<script setup lang="ts">
/** A rule that asks something else than segments: in its words, to be kept or taken away. */
defineProps<{ text: string; canChange: boolean }>()
const emit = defineEmits<{ remove: [] }>()
</script>

<template>
  <span class="flex items-start gap-2"
    ><span class="small min-w-0 flex-1 font-semibold break-words">{{ text }}</span
    ><button v-if="canChange" type="button" class="btn btn-sm flex-none" @click="emit('remove')">
      Take away
    </button></span
  >
</template>
