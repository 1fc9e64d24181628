<script setup lang="ts">
import { type Comparison, type ConditionOf, families } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'field'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'field'>] }>()
const { set, vocabulary } = conditionChips<'field'>(props, emit)
const field = computed(() => vocabulary.value.fields.find(({ key }) => key === props.condition.key))
const values = ref<{ value: string; n: number }[]>([])

async function look() {
  if (values.value.length) return
  const path = `/api/segments/values?field=${props.condition.key}`
  values.value = await request<typeof values.value>(path).catch(() => [])
}
</script>

<template>
  <span class="chip chip-subject">{{ field?.name ?? condition.key }}</span>
  <ValueChips
    :test="condition.test"
    :family="field ? families[field.kind] : 'any'"
    :values="values"
    @look="look"
    @change="(test: Comparison) => set({ test })"
  />
</template>
