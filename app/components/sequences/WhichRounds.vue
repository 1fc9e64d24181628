<script setup lang="ts">
import {
  everyRound,
  isEveryRound,
  LONGEST_WHO,
  readWhich,
  writeWhich,
  type Which,
} from '~~/core/sequences'
import { startingWords } from './words'

/** Of whom results are: of everybody, or of some, by how they came in and by who they are. */
const store = useSequence()
const route = useRoute()
const { date } = useTimes()
const of = computed(() => store.sequence!)
const which = computed(() => readWhich(route.query))
/** It has an address. */
function set(change: Partial<Which>) {
  const keys = writeWhich({
    ...{ days: 1, version: 1, start: 1, segmentId: 1, domain: 'x', signUpId: 1, who: 'x' },
  })
  const rest = Object.fromEntries(Object.entries(route.query).filter(([key]) => !(key in keys)))
  void goTo({ query: { ...rest, ...writeWhich({ ...which.value, ...change }) } })
}
const periods = [7, 30, 90, 365]
/** The ways in of the map that is shown. */
const starts = computed(() =>
  (store.asItRuns?.map.start.by ?? []).map((start) => startingWords(start, of.value)),
)
const open = ref(!isEveryRound(which.value))
const example = 'as segments ask: Town is "Sandreach"'
const value = (event: Event) => (event.target as HTMLSelectElement).value
const number = (event: Event) => Number(value(event)) || null
const startOf = (text: string): Which['start'] =>
  text === '' ? null : text === 'hand' ? 'hand' : Number(text)
</script>

<template>
  <div class="mt-2">
    <button v-if="!open" type="button" class="link small min-h-6" @click="open = true">
      Of everybody; narrow it…
    </button>
    <div v-else class="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1.5">
      <label class="muted small" for="which-since">Came in</label>
      <select
        id="which-since"
        class="field field-sm"
        :value="which.days ?? ''"
        @change="set({ days: number($event) })"
      >
        <option value="">at any time</option>
        <option v-for="one in periods" :key="one" :value="one">in the last {{ one }} days</option>
      </select>
      <template v-if="of.versions.length > 1 || which.version !== null">
        <label class="muted small" for="which-version">By version</label>
        <select
          id="which-version"
          class="field field-sm"
          :value="which.version ?? ''"
          @change="set({ version: number($event), start: null })"
        >
          <option value="">any</option>
          <option v-for="one in of.versions" :key="one.version" :value="one.version">
            {{ one.version }}, from {{ date(one.at) }}
          </option>
        </select>
      </template>
      <label class="muted small" for="which-start">By</label>
      <select
        id="which-start"
        class="field field-sm"
        :value="which.start ?? ''"
        @change="set({ start: startOf(value($event)) })"
      >
        <option value="">any way in</option>
        <option v-for="(words, n) in starts" :key="n" :value="n">{{ words }}</option>
        <option value="hand">by hand, or another sequence</option>
      </select>
      <label class="muted small" for="which-segment">In</label>
      <select
        id="which-segment"
        class="field field-sm"
        :value="which.segmentId ?? ''"
        @change="set({ segmentId: number($event) })"
      >
        <option value="">any segment</option>
        <option v-for="one in of.segments" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <label class="muted small" for="which-provider">At</label>
      <select
        id="which-provider"
        class="field field-sm"
        :value="which.domain ?? ''"
        @change="set({ domain: value($event) || null })"
      >
        <option value="">any provider</option>
        <option v-for="one in of.providers" :key="one" :value="one">{{ one }}</option>
      </select>
      <template v-if="of.signUps.length || which.signUpId !== null">
        <label class="muted small" for="which-sign-up">Signed up</label>
        <select
          id="which-sign-up"
          class="field field-sm"
          :value="which.signUpId ?? ''"
          @change="set({ signUpId: number($event) })"
        >
          <option value="">by any form, or none</option>
          <option v-for="one in of.signUps" :key="one.id" :value="one.id">
            by “{{ one.name }}”
          </option>
        </select>
      </template>
      <label class="muted small" for="which-who">Who</label>
      <KeptInput
        id="which-who"
        class="field field-sm"
        :maxlength="LONGEST_WHO"
        :placeholder="example"
        :value="which.who ?? ''"
        @taken="set({ who: $event.trim() || null })"
      />
      <button
        v-if="!isEveryRound(which)"
        type="button"
        class="link small col-span-2 min-h-6 justify-self-start"
        @click="set(everyRound)"
      >
        Of everybody again
      </button>
    </div>
  </div>
</template>
