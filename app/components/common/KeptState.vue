<script setup lang="ts" generic="T extends object">
/**
 * Beside something that is kept: that it is being saved, why it is not, and, where somebody else changed the same, both
 * side by side to choose from.
 */
const props = defineProps<{
  keeper: Keeper<T>
  /** What is said of a field's value; as JSON where nothing is given. */
  describe?: (field: string, value: unknown) => string
}>()
const state = computed(() => props.keeper.state.value)
const clash = computed(() => state.value.clash ?? props.keeper.overtaken.value)
const settledLate = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
// What is saved at once is not said to be saving.
watch(
  () => props.keeper.settled(),
  (settled) => {
    clearTimeout(timer)
    settledLate.value = false
    if (!settled) timer = setTimeout(() => (settledLate.value = true), 300)
  },
  { immediate: true },
)
onUnmounted(() => clearTimeout(timer))
const saving = computed(
  () => settledLate.value && state.value.known !== null && !state.value.problem && !clash.value,
)
const nameOf = (field: string) => props.keeper.names[field] ?? field
function words(field: string, value: unknown): string {
  if (props.describe) return props.describe(field, value)
  if (value === null || value === undefined || value === '') return 'nothing'
  return typeof value === 'object' ? JSON.stringify(value) : String(value)
}
const valueOf = (of: object, field: string) => words(field, of[field as never])
</script>

<template>
  <p v-if="saving" class="muted small" role="status">Saving…</p>
  <p v-else-if="state.problem" class="fault small flex flex-wrap items-center gap-2" role="alert">
    <span>Not saved. {{ state.problem.words }}</span>
    <button v-if="state.problem.again" type="button" class="btn btn-sm" @click="keeper.again()">
      Try again
    </button>
  </p>
  <section
    v-if="clash"
    class="rounded-md border border-warn-600 bg-warn-100 p-3"
    role="alert"
    aria-label="Two versions"
  >
    <p v-if="state.clash" class="font-semibold">
      Somebody else changed the same while you did. Nothing of it is saved until you choose.
    </p>
    <p v-else class="font-semibold">Somebody else changed what you had set.</p>
    <table class="mt-2 w-full text-left">
      <thead>
        <tr>
          <th class="w-36 pr-3 font-normal"><span class="sr-only">What</span></th>
          <th class="pr-3">Yours</th>
          <th>Theirs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in clash.at" :key="field" class="align-top">
          <th scope="row" class="pr-3 font-normal">{{ nameOf(field) }}</th>
          <td class="pr-3 break-words">{{ valueOf(clash.mine, field) }}</td>
          <td class="break-words">{{ valueOf(clash.theirs, field) }}</td>
        </tr>
      </tbody>
    </table>
    <div class="mt-2 flex gap-2">
      <template v-if="state.clash">
        <button type="button" class="btn btn-sm" @click="keeper.keepMine()">Keep yours</button>
        <button type="button" class="btn btn-sm" @click="keeper.takeTheirs()">Take theirs</button>
      </template>
      <template v-else>
        <button type="button" class="btn btn-sm" @click="keeper.putMineBack()">
          Put yours back
        </button>
        <button type="button" class="btn btn-sm" @click="keeper.leaveTheirs()">Leave theirs</button>
      </template>
    </div>
  </section>
</template>
