<script setup lang="ts">
import { isAlike } from '~~/core/choices'
import { stepsInOrder, type Step } from '~~/core/sequences'
import { stepWords } from './words'

/** Publishes what was drawn beside a running sequence: what is another, and what becomes of those inside. */
const props = defineProps<{ open: boolean; busy: boolean }>()
const emit = defineEmits<{ close: []; publish: [moves: boolean, spread: number] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const moves = ref<'stay' | 'move'>('stay')
const spread = ref(0)
/** Whether it is known who waited through a pause. */
const isKnown = ref(false)
watch(
  () => props.open,
  () => {
    moves.value = 'stay'
    spread.value = 0
  },
)

interface Standing {
  version: number
  step: Step | null
  people: number
  moves: boolean
}
const { answer, problem, loading } = useAnswer<Standing[]>(
  () => (props.open ? `/api/sequences/${of.value.id}/moving` : null),
  { live: false },
)
/** Asked anew each time it opens: until then nothing is shown of the time before. */
const inside = computed(() => (loading.value ? null : answer.value))
const many = (rows: Standing[]) => rows.reduce((sum, { people }) => sum + people, 0)
const moving = computed(() => inside.value?.filter((one) => one.moves) ?? [])
const staying = computed(() => inside.value?.filter((one) => !one.moves) ?? [])

const bare = (step: Step) => ({ ...step, next: null, ways: null })
/** What is another on the map than on the one that runs, in words. */
const changes = computed(() => {
  const { map, published } = of.value
  if (!published) return []
  const [now, before] = [stepsInOrder(map), stepsInOrder(published)]
  const added = now.filter(({ id }) => !published.steps[id])
  const gone = before.filter(({ id }) => !map.steps[id])
  const changed = now.filter(
    ({ id, step }) => published.steps[id] && !isAlike(bare(step), bare(published.steps[id]!)),
  )
  const words = (rows: { step: Step }[]) => rows.map(({ step }) => stepWords(step, of.value))
  return [
    ...(isAlike(map.start, published.start) ? [] : [{ what: 'Start', steps: ['as it says now'] }]),
    ...(added.length ? [{ what: 'New', steps: words(added) }] : []),
    ...(changed.length ? [{ what: 'Changed', steps: words(changed) }] : []),
    ...(gone.length ? [{ what: 'Gone', steps: words(gone) }] : []),
  ]
})
const where = ({ step }: Standing) => (step ? stepWords(step, of.value) : 'a step that is gone')
</script>

<template>
  <BaseDialog :open="open" :title="`Publish version ${of.version + 1}?`" @close="emit('close')">
    <dl class="grid grid-cols-[80px_1fr] gap-x-3 gap-y-1">
      <template v-for="one in changes" :key="one.what">
        <dt class="muted">{{ one.what }}</dt>
        <dd>{{ one.steps.join(' · ') }}</dd>
      </template>
    </dl>
    <p v-if="!changes.length">The steps are the same; ways lead elsewhere.</p>
    <p class="mt-3">Who comes in from now on goes by it.</p>
    <p v-if="problem && !loading" class="fault mt-3" role="alert">{{ problem }}</p>
    <p v-else-if="!inside" class="muted mt-3" role="status">Asking who is inside…</p>
    <p v-else-if="!inside.length" class="mt-1">Nobody is inside.</p>
    <fieldset v-else class="mt-3 grid gap-2">
      <legend class="mb-1 font-semibold">{{ people(many(inside)) }} inside</legend>
      <label class="flex gap-2"
        ><input v-model="moves" type="radio" name="moves" value="stay" class="mt-1 flex-none" />
        <span>stay on the version they came in by, to their end</span></label
      >
      <label class="flex gap-2"
        ><input
          v-model="moves"
          type="radio"
          name="moves"
          value="move"
          class="mt-1 flex-none"
          :disabled="!moving.length"
        />
        <span
          >go on by this one where their step is still there: {{ people(many(moving)) }}
          <span v-if="staying.length" class="muted">· {{ count(many(staying)) }} stay</span></span
        ></label
      >
      <ul v-if="moves === 'move'" class="ml-6 grid gap-0.5">
        <li v-for="(one, n) in inside" :key="n" class="small flex justify-between gap-3">
          <span class="truncate">{{ where(one) }}</span><span class="muted flex-none"
            >{{ count(one.people) }}
            {{ one.moves ? 'go on from there' : `stay on version ${one.version}` }}</span
          >
        </li>
      </ul>
      <p v-if="moves === 'move'" class="muted small ml-6">
        A wait that is longer or shorter now counts from when they came to it. Nobody gets a mail
        twice.
      </p>
    </fieldset>
    <SpreadChoice
      v-if="open && of.state === 'paused'"
      v-model="spread"
      class="mt-3"
      @known="isKnown = $event"
    />
    <template #actions
      ><button class="btn" @click="emit('close')">Not yet</button
      ><button
        class="btn btn-go"
        :disabled="busy || (!inside && !problem) || (of.state === 'paused' && !isKnown)"
        @click="emit('publish', moves === 'move', spread)"
      >
        Publish
      </button></template
    >
  </BaseDialog>
</template>
