<script setup lang="ts">
import type { ButtonPart, ConsentPart } from '~~/core/sign-ups'

/** What one gets by a box, or by the button: some lists, or the promised mail alone. */
const props = defineProps<{ part: ConsentPart | ButtonPart }>()
const store = useSignUp()
const of = computed(() => store.signUp!)
const set = (change: object) => store.setPart(props.part.id, change)
function toggle(id: number, on: boolean) {
  const lists = props.part.lists.filter((one) => one !== id)
  set({ lists: on ? [...lists, id] : lists })
}
const checked = (event: Event) => (event.target as HTMLInputElement).checked
</script>

<template>
  <div class="grid gap-1.5" role="group" aria-label="What one gets by it">
    <span class="muted small">{{
      part.kind === 'button' ? 'Pressing it joins' : 'Ticking it joins'
    }}</span>
    <label v-for="list in of.lists" :key="list.id" class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="part.lists.includes(list.id)"
        @change="toggle(list.id, checked($event))"
      />
      {{ list.name }}</label
    >
    <label class="flex items-center gap-2"
      ><input type="checkbox" :checked="part.oneMail" @change="set({ oneMail: checked($event) })" />
      one mail only: what is promised</label
    >
    <label v-if="part.kind === 'consent'" class="mt-1 flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="part.required"
        @change="set({ required: checked($event) })"
      />
      has to be ticked to go on</label
    >
  </div>
</template>
