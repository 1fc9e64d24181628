<script setup lang="ts">
import type { SignUpForm } from '~~/core/sign-ups'

/** What one sees instead of the form, in the language that is worked on; or another page where one is led. */
const props = defineProps<{ state: 'thanks' | 'confirmed'; name: string; about: string }>()
const store = useSignUp()
const said = computed(() => store.form![props.state])
const set = (change: Partial<SignUpForm['thanks']>) =>
  store.setForm({ [props.state]: { ...said.value, ...change } } as Partial<SignUpForm>)
const say = (key: 'title' | 'text', text: string) =>
  set({ [key]: { ...said.value[key], [store.language]: text } })
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet" :aria-label="name">
    <div class="sheet-head">
      <h2>{{ name }}</h2>
      <span class="muted small">{{ about }}</span>
    </div>
    <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
      <label class="grid gap-1"
        ><span class="muted small">Title</span
        ><KeptInput
          class="field"
          :value="said.title[store.language] ?? ''"
          maxlength="300"
          @taken="say('title', $event)"
      /></label>
      <label class="grid gap-1"
        ><span class="muted small">Text</span
        ><textarea
          class="field"
          rows="2"
          :value="said.text[store.language] ?? ''"
          @change="say('text', text($event))"
        />
      </label>
      <label class="grid gap-1"
        ><span class="muted small">Or a page of your own, where one is led instead</span
        ><KeptInput
          class="field"
          type="url"
          :value="said.url"
          maxlength="2000"
          placeholder="https://"
          @taken="set({ url: $event.trim() })"
      /></label>
    </fieldset>
  </section>
</template>
