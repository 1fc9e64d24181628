<script setup lang="ts">
import { languageNames } from '~~/core/readers'

/** What comes after a form is sent in, and after that is confirmed. */
const store = useSignUp()
</script>

<template>
  <div v-if="store.form" class="grid h-full grid-cols-[minmax(0,1fr)_318px]">
    <div class="overflow-auto px-5 py-5">
      <div class="mx-auto grid max-w-[680px] gap-5">
        <ChoiceButtons
          v-if="store.form.languages.length > 1"
          v-model="store.language"
          :options="store.form.languages.map((value) => ({ value, name: languageNames[value] }))"
          label="Language"
        />
        <SaidSettings state="thanks" name="Thanks" about="seen as soon as it is sent in" />
        <SaidSettings state="confirmed" name="Confirmed" about="seen behind the letter’s button" />
        <WhatIsPromised />
        <OnConfirming />
        <WhoIsTold />
      </div>
    </div>
    <aside class="overflow-auto border-l border-line bg-sheet"><SignUpMarks /></aside>
  </div>
</template>
