<script setup lang="ts">
import { doubts, type Doubt } from '~~/core/sign-ups'

/** What is kept for a look: mailed nothing before somebody lets it through. */
interface Kept {
  id: number
  at: number
  address: string
  doubt: Doubt
  page: string | null
  droppedAt: number
}
const store = useSignUp()
const live = useLive()
const { dayAndTime, date } = useTimes()
const path = computed(() => (store.signUp ? `/api/sign-ups/${store.signUp.id}/sendings` : null))
const { answer, problem } = useAnswer<Kept[]>(() => path.value)
const chosen = ref<number[]>([])
const busy = ref(false)
const all = ref(false)
const FEW = 8
const shown = computed(() => (all.value ? answer.value : answer.value?.slice(0, FEW)) ?? [])
const there = computed(() =>
  chosen.value.filter((id) => answer.value?.some((one) => one.id === id)),
)
async function tell(what: 'let-through' | 'drop') {
  busy.value = true
  const done = await act<{ moved: number }>(path.value!, 'POST', { what, ids: there.value })
  busy.value = false
  if (!done) return
  chosen.value = []
  live.changes++
  const many = several(done.moved, 'sending', 'sendings')
  useNotices().say(
    what === 'drop'
      ? `${many} dropped.`
      : `${many} let through: the confirming letter goes out now.`,
  )
}
</script>

<template>
  <section class="sheet" aria-label="Kept for a look">
    <div class="sheet-head">
      <h2>Kept for a look</h2>
      <span class="muted small">mailed nothing; dropped after 14 days</span>
    </div>
    <p v-if="problem" class="fault p-4" role="alert">{{ problem }}</p>
    <p v-else-if="answer && !answer.length" class="muted p-4">Nothing is doubtful just now.</p>
    <template v-else-if="answer">
      <ul class="m-0 list-none p-0">
        <li v-for="one in shown" :key="one.id" class="border-b border-line-soft last:border-0">
          <label class="flex items-start gap-2.5 px-4 py-2"
            ><input v-model="chosen" type="checkbox" class="mt-1" :value="one.id" /><span
              class="min-w-0"
              ><span class="block truncate">{{ one.address }}</span
              ><span class="muted small"
                >{{ doubts[one.doubt].words }} · {{ dayAndTime(one.at) }} · until
                {{ date(one.droppedAt) }}</span
              ></span
            ></label
          >
        </li>
      </ul>
      <div v-may="'POST /api/sign-ups/[id]/sendings'" class="flex gap-2 border-t border-line p-3">
        <button
          type="button"
          class="btn btn-sm"
          :disabled="busy || !there.length"
          @click="tell('let-through')"
        >
          Let through
        </button>
        <button
          type="button"
          class="btn btn-sm"
          :disabled="busy || !there.length"
          @click="tell('drop')"
        >
          Drop
        </button>
        <button
          v-if="answer.length > FEW"
          type="button"
          class="link small ml-auto"
          @click="all = !all"
        >
          {{ all ? 'The latest only' : `All ${count(answer.length)}` }}
        </button>
      </div>
    </template>
  </section>
</template>
