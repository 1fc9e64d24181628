<script setup lang="ts">
import { backdropPlaces, type BackdropFit, type BackdropPlace, type Style } from '~~/core/letters'

/** The picture behind a row: which, how it fills the row, and where it stands. */
const props = defineProps<{ look: Style | undefined }>()
const emit = defineEmits<{ change: [style: Style | undefined] }>()
const fits: [BackdropFit, string][] = [
  ['cover', 'fills the row'],
  ['contain', 'wholly seen'],
  ['auto', 'in its own size'],
]
function set(change: Pick<Style, 'backdrop' | 'backdropAt' | 'backdropFit'>) {
  emit('change', { ...props.look, ...change })
}
function takeAway() {
  const { backdrop: _one, backdropAt: _at, backdropFit: _fit, ...rest } = props.look ?? {}
  emit('change', Object.keys(rest).length ? rest : undefined)
}
const given = (event: Event) => (event.target as HTMLSelectElement).value
const placeNames: Record<BackdropPlace, string> = {
  'top left': 'top left',
  'top center': 'top',
  'top right': 'top right',
  'center left': 'left',
  'center center': 'in the middle',
  'center right': 'right',
  'bottom left': 'bottom left',
  'bottom center': 'bottom',
  'bottom right': 'bottom right',
}
const id = useId()
</script>

<template>
  <div class="grid grid-cols-[92px_1fr] items-center gap-x-2.5 gap-y-1.5">
    <span>Behind it</span>
    <div>
      <img v-if="look?.backdrop" :src="look.backdrop" alt="What stands behind the row" />
      <PictureSlot v-else @taken="set({ backdrop: $event })" />
      <button v-if="look?.backdrop" type="button" class="link small" @click="takeAway">
        Remove it
      </button>
    </div>
    <template v-if="look?.backdrop">
      <label :for="`${id}-fit`">It</label>
      <select
        :id="`${id}-fit`"
        class="field field-sm"
        :value="look.backdropFit ?? 'cover'"
        @change="set({ backdropFit: given($event) as BackdropFit })"
      >
        <option v-for="[fit, words] in fits" :key="fit" :value="fit">{{ words }}</option>
      </select>
      <label :for="`${id}-at`">It stands</label>
      <select
        :id="`${id}-at`"
        class="field field-sm"
        :value="look.backdropAt ?? 'center center'"
        @change="set({ backdropAt: given($event) as BackdropPlace })"
      >
        <option v-for="place in backdropPlaces" :key="place" :value="place">
          {{ placeNames[place] }}
        </option>
      </select>
      <p class="muted col-span-2">
        Programs of the old word-processor kind do not show it. Choose a background, too, on which
        the words can be read.
      </p>
    </template>
  </div>
</template>
