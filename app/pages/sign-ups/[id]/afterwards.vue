<script setup lang="ts">
import { languageNames } from '~~/core/readers'
import type { SignUpForm } from '~~/core/sign-ups'

/** What comes after a form is sent in, and after that is confirmed. */
const store = useSignUp()
const form = computed(() => store.form!)
const language = computed(() => store.language)
type State = 'thanks' | 'confirmed'
const states: { key: State; name: string; about: string }[] = [
  { key: 'thanks', name: 'Thanks', about: 'seen as soon as it is sent in' },
  { key: 'confirmed', name: 'Confirmed', about: 'seen behind the letter’s button' },
]
const words = (state: State, key: 'title' | 'text') => form.value[state][key][language.value] ?? ''
const say = (state: State, key: 'title' | 'text', text: string) =>
  store.setForm({
    [state]: {
      ...form.value[state],
      [key]: { ...form.value[state][key], [language.value]: text },
    },
  } as Partial<SignUpForm>)
const promise = (change: Partial<SignUpForm['promised']>) =>
  store.setForm({ promised: { ...form.value.promised, ...change } })
function tag(name: string, on: boolean) {
  const others = form.value.tags.filter((one) => one !== name)
  store.setForm({ tags: on ? [...others, name] : others })
}
const newTag = ref('')
function addTag() {
  const name = newTag.value.trim()
  if (name) tag(name, true)
  newTag.value = ''
}
const otherTags = computed(() =>
  store.signUp!.tags.filter((name) => !form.value.tags.includes(name)),
)
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div v-if="store.form" class="grid h-full grid-cols-[minmax(0,1fr)_318px]">
    <div class="overflow-auto px-5 py-5">
      <div class="mx-auto grid max-w-[680px] gap-5">
        <ChoiceButtons
          v-if="form.languages.length > 1"
          v-model="store.language"
          :options="form.languages.map((value) => ({ value, name: languageNames[value] }))"
          label="Language"
        />
        <section v-for="one in states" :key="one.key" class="sheet" :aria-label="one.name">
          <div class="sheet-head">
            <h2>{{ one.name }}</h2>
            <span class="muted small">{{ one.about }}</span>
          </div>
          <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
            <label class="grid gap-1"
              ><span class="muted small">Title</span
              ><KeptInput
                class="field"
                :value="words(one.key, 'title')"
                maxlength="300"
                @taken="say(one.key, 'title', $event)"
            /></label>
            <label class="grid gap-1"
              ><span class="muted small">Text</span
              ><textarea
                class="field"
                rows="2"
                :value="words(one.key, 'text')"
                @change="say(one.key, 'text', text($event))"
              />
            </label>
          </fieldset>
        </section>
        <section class="sheet" aria-label="What was promised">
          <div class="sheet-head">
            <h2>What was promised</h2>
            <span class="muted small">by mail and on the page, once it is confirmed</span>
          </div>
          <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
            <label class="grid gap-1"
              ><span class="muted small">Where it is</span
              ><KeptInput
                class="field"
                type="url"
                :value="form.promised.url"
                maxlength="2000"
                placeholder="https://"
                @taken="promise({ url: $event.trim() })"
            /></label>
            <label class="grid gap-1"
              ><span class="muted small">What it is called</span
              ><KeptInput
                class="field"
                :value="form.promised.name[language] ?? ''"
                maxlength="300"
                @taken="promise({ name: { ...form.promised.name, [language]: $event } })"
            /></label>
            <p class="muted small">
              Where a box says “one mail only”, it goes to those who ticked that box; else to
              everybody who confirms.
            </p>
          </fieldset>
        </section>
        <section class="sheet" aria-label="Tags">
          <div class="sheet-head">
            <h2>Tags</h2>
            <span class="muted small">for everybody who confirms</span>
          </div>
          <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
            <p v-if="!form.tags.length" class="muted small">None.</p>
            <div v-else class="flex flex-wrap gap-1.5">
              <button
                v-for="name in form.tags"
                :key="name"
                type="button"
                class="chip"
                :aria-label="`Remove the tag ${name}`"
                @click="tag(name, false)"
              >
                {{ name }} ×
              </button>
            </div>
            <form class="flex gap-2" @submit.prevent="addTag">
              <input
                v-model="newTag"
                class="field field-sm w-56"
                aria-label="Another tag"
                placeholder="another tag"
                maxlength="60"
                list="sign-up-tags"
              /><button class="btn btn-sm" :disabled="!newTag.trim()">Add</button>
              <datalist id="sign-up-tags">
                <option v-for="name in otherTags" :key="name" :value="name" />
              </datalist>
            </form>
          </fieldset>
        </section>
        <p class="muted small">
          A sequence that begins when somebody joins a list begins for who joins it by this form,
          too.
        </p>
      </div>
    </div>
    <aside class="overflow-auto border-l border-line bg-sheet"><SignUpMarks /></aside>
  </div>
</template>
