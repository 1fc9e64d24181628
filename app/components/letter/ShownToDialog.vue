<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Rule } from '~~/core/segments'

/** The rule of who gets a row or a block, made as a segment's rule is. */
const props = defineProps<{ name: string; rule: Rule | null }>()
const emit = defineEmits<{ close: []; done: [rule: Rule] }>()
const store = useSegment()
onMounted(() => store.open(null, { name: props.name, rule: props.rule ?? { kind: 'all', of: [] } }))
const isEmpty = computed(() => store.rule.of.length === 0)
</script>

<template>
  <Dialog open class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink-900/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-auto px-4 pt-[10vh]">
      <DialogPanel class="floats w-full max-w-[960px] rounded-md border border-line bg-sheet p-5">
        <div class="flex items-start justify-between gap-4">
          <div>
            <DialogTitle as="h2" class="text-[17px]">{{ name }} is shown to</DialogTitle>
            <p class="muted mt-0.5">
              {{ isEmpty ? 'Say whom: nobody yet is left out.' : store.counts?.text }}
            </p>
          </div>
          <div class="flex-none text-right" aria-live="polite">
            <b class="font-head text-[20px]">{{
              store.counts ? count(store.counts.total) : '…'
            }}</b>
            <div class="muted small">on file</div>
          </div>
        </div>
        <p v-if="store.problem" class="fault mt-2" role="alert">{{ store.problem }}</p>
        <section class="sheet mt-3" aria-label="Rules">
          <RuleLines />
          <div class="rounded-b-md bg-canvas-50 py-[2px] pl-[66px]">
            <AddRule @add="(rule) => store.add([], rule)" />
          </div>
        </section>
        <div class="mt-5 flex justify-end gap-2">
          <button type="button" class="btn" @click="emit('close')">Cancel</button>
          <button
            type="button"
            class="btn btn-go"
            :disabled="isEmpty"
            @click="emit('done', store.rule.of.length === 1 ? store.rule.of[0]! : store.rule)"
          >
            Show it to them
          </button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
