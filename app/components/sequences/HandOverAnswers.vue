<script setup lang="ts">
/** Who was handed over by a step last, and what the other program answered. */
interface Handed {
  id: number
  person_id: number
  address: string
  step: string
  at: number
  due: number | null
  taken: number | null
  said: string | null
  answer: string
}
const props = defineProps<{ step: string }>()
const store = useSequence()
const live = useLive()
const { dayAndTime } = useTimes()
const path = computed(() => `/api/sequences/${store.sequence!.id}/hand-overs`)
const may = computed(() => useSession().may('GET /api/sequences/[id]/hand-overs'))
const { answer, problem } = useAnswer<{ key: string; handOvers: Handed[] }>(() =>
  may.value ? path.value : null,
)
const those = computed(() => answer.value?.handOvers.filter(({ step }) => step === props.step))
const shown = ref(false)
const FEW = 6
const allShown = ref(false)
async function again({ id }: Handed) {
  if (!(await act(path.value, 'POST', { call: id }))) return
  live.changes++
  useNotices().say('They are handed over again now.')
}
/** "result added, number K-1001". */
function heardWords(answer: string): string {
  const entries = Object.entries(JSON.parse(answer) as Record<string, unknown>)
  const shown = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value))
  return entries.map(([name, value]) => `${name} ${shown(value)}`).join(', ')
}
function stateOf({ taken, due, said, answer }: Handed): string {
  const words = heardWords(answer)
  const heard = words && `: ${words}`
  if (taken === 1) return `taken${heard}`
  if (due === null) return `refused (${said})${heard}`
  return said ? `${said}; tried again ${dayAndTime(due)}` : 'on its way'
}
</script>

<template>
  <section v-if="may" class="mt-4" aria-label="What was answered">
    <h2>What was answered</h2>
    <p v-if="problem" class="fault mt-1" role="alert">{{ problem }}</p>
    <template v-else-if="answer">
      <p v-if="!those!.length" class="muted small mt-1">Nobody was handed over yet.</p>
      <ul v-else class="mt-1">
        <li
          v-for="one in allShown ? those : those!.slice(0, FEW)"
          :key="one.id"
          class="border-b border-line-soft py-1.5 last:border-0"
        >
          <span class="flex items-center justify-between gap-2"
            ><NuxtLink class="link min-w-0 truncate" :to="`/people/${one.person_id}`">{{
              one.address
            }}</NuxtLink
            ><button
              v-if="one.due === null"
              v-may="'POST /api/sequences/[id]/hand-overs'"
              type="button"
              class="link small flex-none"
              @click="again(one)"
            >
              Send again
            </button></span
          >
          <span class="muted small break-words">{{ dayAndTime(one.at) }} · {{ stateOf(one) }}</span>
        </li>
      </ul>
      <button
        v-if="those!.length > FEW && !allShown"
        type="button"
        class="link small min-h-6"
        @click="allShown = true"
      >
        The last {{ those!.length }}
      </button>
      <p class="muted small mt-2">
        2xx is taken and 4xx refused; anything else is tried again for a day, under the same
        <code>Idempotency-Key</code>. <code>Satchel-Signature</code> is by this key:
        <code v-if="shown" class="break-all">{{ answer.key }}</code><button
          v-else
          type="button"
          class="link"
          @click="shown = true"
        >
          show the key</button
        >.
      </p>
    </template>
  </section>
</template>
