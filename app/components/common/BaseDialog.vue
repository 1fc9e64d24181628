<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
defineProps<{ open: boolean; title: string }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-50" @close="$emit('close')">
    <div class="fixed inset-0 bg-ink-900/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-auto px-4 pt-[14vh]">
      <DialogPanel class="floats w-full max-w-lg rounded-md border border-line bg-sheet p-5">
        <DialogTitle as="h2" class="mb-3 text-[17px]">{{ title }}</DialogTitle>
        <slot />
        <div class="mt-5 flex justify-end gap-2"><slot name="actions" /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
