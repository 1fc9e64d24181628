<script setup lang="ts">
import {
  FEWEST_A_WAY,
  judgedBy,
  judgedHow,
  restOf,
  WHOLE,
  type Judged,
  type SplitStep,
} from '~~/core/sequences'

/** The shares of ways by lot. The first has what the others leave. */
const props = defineProps<{ id: string; step: SplitStep }>()
const store = useSequence()
const letters = ['A', 'B', 'C', 'D', 'E']
/** The most that a way may have: something is left for the first. */
const most = (n: number) => (restOf(props.step.ways) + props.step.ways[n]!.share) / 10 - 0.1
function setShare(n: number, percent: number) {
  if (!Number.isFinite(percent)) return
  const share = Math.round(Math.min(most(n), Math.max(0.1, percent)) * 10)
  const ways = props.step.ways.map((way, i) => (i === n ? { ...way, share } : way))
  void store.changeStep(props.id, { ...props.step, ways })
}
/** One more way, and all have the same share again. */
function add() {
  const many = props.step.ways.length + 2
  const share = Math.floor(WHOLE / many)
  const ways = [...props.step.ways, { share, next: props.step.next }]
  void store.changeStep(props.id, { ...props.step, ways: ways.map((way) => ({ ...way, share })) })
}
const freshJudged: Judged = { by: 'goal', days: 7, how: 'self' }
function judge(change: Partial<Judged> | null) {
  const { judged: before, ...rest } = props.step
  const judged = change && { ...(before ?? freshJudged), ...change }
  void store.changeStep(props.id, { ...rest, ...(judged && { judged }) })
}
function chooseBy(event: Event) {
  const by = (event.target as HTMLSelectElement).value
  judge(by === '' ? null : { by: by as Judged['by'] })
}
function setDays(days: number) {
  if (Number.isFinite(days)) judge({ days: Math.round(Math.min(90, Math.max(1, days))) })
}
const passed = computed(() => store.sequence!.traffic[props.id] ?? [])
</script>

<template>
  <h2>Split by lot</h2>
  <p class="muted small mt-1">Somebody always falls the same way here.</p>
  <fieldset class="mt-2 grid gap-2" :disabled="!store.canChange">
    <div class="flex items-center gap-2">
      <b class="w-4">A</b><span class="w-20 text-right">{{ restOf(step.ways) / 10 }}</span
      ><span
        >% <span v-if="passed.length" class="muted small">{{ people(passed[0] ?? 0) }}</span></span
      >
    </div>
    <div v-for="(way, n) in step.ways" :key="n" class="grid gap-1.5 border-t border-line-soft pt-2">
      <div class="flex items-center gap-2">
        <b class="w-4">{{ letters[n + 1] }}</b>
        <KeptInput
          class="field field-sm w-20 text-right"
          type="number"
          min="0.1"
          :max="most(n)"
          step="0.1"
          :aria-label="`Share of ${letters[n + 1]}, percent`"
          :value="way.share / 10"
          @taken="setShare(n, Number($event))"
        /><span class="flex-1"
          >%
          <span v-if="passed.length" class="muted small">{{
            people(passed[n + 1] ?? 0)
          }}</span></span
        >
        <button
          v-if="step.ways.length > 1"
          type="button"
          class="btn btn-sm"
          :aria-label="`Remove way ${letters[n + 1]}`"
          @click="store.removeWay(id, n + 1)"
        >
          Remove
        </button>
      </div>
      <JoinPick :id="id" :way="n + 1" :label="`Way ${letters[n + 1]}: then on to`" />
    </div>
    <button
      v-if="step.ways.length < 4"
      type="button"
      class="btn btn-sm justify-self-start"
      @click="add"
    >
      Another way
    </button>
    <div class="grid gap-2 border-t border-line-soft pt-2">
      <label class="grid gap-1"
        ><span class="muted small">Its ways are judged by who</span>
        <select class="field field-sm" :value="step.judged?.by ?? ''" @change="chooseBy">
          <option value="">not judged</option>
          <option v-for="(name, by) in judgedBy" :key="by" :value="by">{{ name }}</option>
        </select></label
      >
      <template v-if="step.judged">
        <label class="flex items-center gap-2"
          ><span class="muted small">within</span>
          <KeptInput
            class="field field-sm w-20 text-right"
            type="number"
            min="1"
            max="90"
            aria-label="Within how many days"
            :value="step.judged.days"
            @taken="setDays(Number($event))"
          />
          <span class="muted small">days of coming by</span></label
        >
        <label class="grid gap-1"
          ><span class="muted small">And then</span>
          <select
            class="field field-sm"
            :value="step.judged.how"
            @change="judge({ how: ($event.target as HTMLSelectElement).value as Judged['how'] })"
          >
            <option v-for="(name, how) in judgedHow" :key="how" :value="how">{{ name }}</option>
          </select></label
        >
        <p class="muted small">
          {{
            step.judged.how === 'hand'
              ? 'How they compare is shown under Results.'
              : `Not before ${FEWEST_A_WAY} came by each way and their days are over. It holds for who comes from then on.`
          }}
        </p>
      </template>
    </div>
  </fieldset>
</template>
