<script setup lang="ts">
import {
  MOST_DRAWN,
  restOf,
  wayName,
  type Drawn,
  type Judged,
  type SplitStep,
} from '~~/core/sequences'
import { withOneMore } from './shares'

/** The shares of ways by lot. The first has what the others leave. */
const props = defineProps<{ id: string; step: SplitStep }>()
const store = useSequence()
const change = (over: Partial<SplitStep>) =>
  void store.changeStep(props.id, { ...props.step, ...over })
const setShares = (drawn: Drawn[]) =>
  change({ ways: props.step.ways.map((way, n) => ({ ...way, share: drawn[n]!.share })) })
const add = () => change({ ways: withOneMore(props.step.ways, { next: props.step.next }) })
function judge(judged: Judged | undefined) {
  const { judged: _, ...rest } = props.step
  void store.changeStep(props.id, { ...rest, ...(judged && { judged }) })
}
const passed = computed(() => store.sequence!.traffic[props.id] ?? [])
</script>

<template>
  <h2>Split by lot</h2>
  <p class="muted small mt-1">Somebody always falls the same way here.</p>
  <fieldset class="mt-2 grid gap-2" :disabled="!store.canChange">
    <div class="flex items-center gap-2">
      <b class="w-4">A</b><span class="w-20 pr-6 text-right">{{ restOf(step.ways) / 10 }}</span
      ><span
        >% <span v-if="passed.length" class="muted small">{{ people(passed[0] ?? 0) }}</span></span
      >
    </div>
    <div v-for="(_, n) in step.ways" :key="n" class="grid gap-1.5 border-t border-line-soft pt-2">
      <div class="flex items-center gap-2">
        <b class="w-4">{{ wayName(n + 1) }}</b>
        <ShareField :drawn="step.ways" :n="n" @change="setShares" /><span class="flex-1"
          >%
          <span v-if="passed.length" class="muted small">{{
            people(passed[n + 1] ?? 0)
          }}</span></span
        >
        <button
          v-if="step.ways.length > 1"
          type="button"
          class="btn btn-sm"
          :aria-label="`Remove way ${wayName(n + 1)}`"
          @click="store.removeWay(id, n + 1)"
        >
          Remove
        </button>
      </div>
      <JoinPick :id="id" :way="n + 1" :label="`Way ${wayName(n + 1)}: then on to`" />
    </div>
    <button
      v-if="step.ways.length < MOST_DRAWN"
      type="button"
      class="btn btn-sm justify-self-start"
      @click="add"
    >
      Another way
    </button>
    <JudgedSettings :judged="step.judged" what="ways" since="of coming by" @change="judge" />
  </fieldset>
</template>
