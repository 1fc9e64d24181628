<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
defineProps<{ open: boolean; title: string; wide?: boolean }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="$emit('close')">
    <div class="fixed inset-0 bg-ink-900/25" aria-hidden="true" />
    <div
      class="fixed inset-0 flex items-start justify-center overflow-auto px-4"
      :class="wide ? 'pt-[8vh]' : 'pt-[14vh]'"
    >
      <DialogPanel
        class="floats w-full rounded-md border border-line bg-sheet p-5"
        :class="wide ? 'max-w-4xl' : 'max-w-lg'"
      >
        <DialogTitle as="h2" class="mb-3 text-[17px]">{{ title }}</DialogTitle>
        <slot />
        <div class="mt-5 flex justify-end gap-2"><slot name="actions" /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
