<script setup lang="ts">
import type { ShownTo } from '~~/core/letters'
import type { Rule } from '~~/core/segments'

/** Who gets a row or a block: everybody, those whom a rule keeps, or everyone else. */
const props = defineProps<{ shownTo: ShownTo | undefined; name: string; canBeRest: boolean }>()
const emit = defineEmits<{ change: [shownTo: ShownTo | undefined] }>()
const store = useMailing()
const editing = ref(false)
const rule = computed<Rule | null>(() =>
  props.shownTo && 'rule' in props.shownTo ? props.shownTo.rule : null,
)
const known = computed(() =>
  store.going?.rules.find((one) => JSON.stringify(one.rule) === JSON.stringify(rule.value)),
)
const id = useId()
function choose(value: string) {
  if (value === 'rule') editing.value = true
  else emit('change', value === 'rest' ? { rest: true } : undefined)
}
</script>

<template>
  <div class="grid grid-cols-[92px_1fr] items-center gap-x-2.5 gap-y-1 text-[12.5px]">
    <label :for="id">Shown to</label>
    <select
      :id="id"
      class="field field-sm"
      :value="rule ? 'rule' : shownTo ? 'rest' : 'all'"
      @change="choose(($event.target as HTMLSelectElement).value)"
    >
      <option value="all">everybody</option>
      <option value="rule">people who…</option>
      <option value="rest" :disabled="!canBeRest && !(shownTo && !rule)">everyone else</option>
    </select>
    <template v-if="rule">
      <span />
      <span>
        <button type="button" class="link text-left" @click="editing = true">
          {{ known?.words || 'the rule' }}
        </button>
        <span v-if="known" class="muted">
          · {{ count(known.people) }} of {{ count(store.going!.audience) }}</span
        >
      </span>
    </template>
    <ShownToDialog
      v-if="editing"
      :name="name"
      :rule="rule"
      @close="editing = false"
      @done="(next) => (emit('change', { rule: next }), (editing = false))"
    />
  </div>
</template>
