<script setup lang="ts">
import { languageNames } from '~~/core/readers'
import { kindNames, signUpKinds, type SignUpKind } from '~~/core/sign-ups'

/** The form itself, written in place, beside what it lacks, what it asks and how it looks. */
const store = useSignUp()
const form = computed(() => store.form!)
const kinds = signUpKinds.map((value) => ({ value, name: kindNames[value] }))
const kind = computed<SignUpKind>({
  get: () => form.value.kind,
  set: (kind) => store.setForm({ kind }),
})
const screen = computed<'wide' | 'phone'>({
  get: () => (store.phone ? 'phone' : 'wide'),
  set: (value) => (store.phone = value === 'phone'),
})
useKeys((event) => {
  if (isWriting(event) || !store.canChange || !store.chosen) return
  const part = store.chosenPart
  if (event.key === 'Delete' && part && part.kind !== 'button' && !isAddress.value)
    store.remove(store.chosen)
  else if (event.key === 'Escape') store.chosen = null
})
const isAddress = computed(
  () => store.chosenPart?.kind === 'field' && store.chosenPart.field === 'address',
)
</script>

<template>
  <div v-if="store.form" class="flex h-full">
    <div class="flex min-w-0 flex-1 flex-col">
      <div
        class="flex flex-none flex-wrap items-center gap-x-4 gap-y-1.5 border-b border-line-soft bg-canvas-50 px-[18px] py-1.5"
      >
        <ChoiceButtons v-model="kind" :options="kinds" label="Kind" />
        <ChoiceButtons v-model="store.shownState" :options="[...formStates]" label="State" />
        <ChoiceButtons
          v-model="screen"
          :options="[
            { value: 'wide', name: 'Desktop' },
            { value: 'phone', name: 'Phone' },
          ]"
          label="Screen"
        />
        <ChoiceButtons
          v-if="form.languages.length > 1"
          v-model="store.language"
          :options="form.languages.map((value) => ({ value, name: languageNames[value] }))"
          label="Language"
        />
      </div>
      <div class="min-h-0 flex-1 overflow-auto px-5 py-5">
        <fieldset :disabled="!store.canChange" class="contents"><FormPaper /></fieldset>
      </div>
    </div>
    <aside class="w-[318px] flex-none overflow-auto border-l border-line bg-sheet">
      <SignUpMarks />
      <PartSettings v-if="store.chosenPart && store.shownState === 'first'" />
      <WhatItAsks />
      <FormSettings />
    </aside>
  </div>
</template>
