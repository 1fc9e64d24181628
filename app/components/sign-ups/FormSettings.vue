<script setup lang="ts">
import { languageNames, readerLanguages, type ReaderLanguage } from '~~/core/readers'
import { drawnLook, type FormLook } from '~~/core/sign-ups'
import { fontStacks } from '~~/core/letters'

/** Of the form as a whole: its languages, its columns, and its look where that differs from the letterhead. */
const store = useSignUp()
const form = computed(() => store.form!)
const look = computed(() => drawnLook(form.value, store.signUp!.letterhead))
const codes = Object.keys(readerLanguages) as ReaderLanguage[]
function speak(language: ReaderLanguage, on: boolean) {
  const others = form.value.languages.filter((one) => one !== language)
  if (!on && others.length === 0) return
  store.setForm({ languages: on ? [...others, language] : others })
  store.language = on ? language : others[0]!
}
const setLook = (change: FormLook) =>
  store.setForm({ look: { ...form.value.look, ...change } }, `look ${Object.keys(change).join()}`)
const differs = computed(() => Object.keys(form.value.look).length > 0)
const text = (event: Event) => (event.target as HTMLInputElement).value
const checked = (event: Event) => (event.target as HTMLInputElement).checked
const colors = [
  { key: 'paper', name: 'Background' },
  { key: 'ink', name: 'Text colour' },
  { key: 'accent', name: 'Button' },
] as const
</script>

<template>
  <section class="border-b border-line px-4 py-3" aria-label="Languages">
    <h2>Languages</h2>
    <fieldset class="mt-1.5 grid grid-cols-2 gap-1" :disabled="!store.canChange">
      <label v-for="code in codes" :key="code" class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="form.languages.includes(code)"
          @change="speak(code, checked($event))"
        /><span>{{ languageNames[code] }}</span></label
      >
    </fieldset>
    <p class="muted small mt-1.5">
      A visitor sees that of their browser, where the form speaks it; else
      {{ languageNames[form.languages[0]!] }}.
    </p>
  </section>
  <section class="px-4 py-3" aria-label="Look">
    <div class="flex items-center justify-between">
      <h2>Look</h2>
      <button
        v-if="differs && store.canChange"
        type="button"
        class="link small"
        @click="store.setForm({ look: {} })"
      >
        Reset to the letterhead
      </button>
    </div>
    <fieldset class="mt-1.5 grid gap-2" :disabled="!store.canChange">
      <label v-for="one in colors" :key="one.key" class="flex items-center justify-between gap-3"
        >{{ one.name
        }}<input
          type="color"
          class="h-7 w-14 rounded border border-line bg-sheet p-0.5"
          :value="look[one.key]"
          @change="setLook({ [one.key]: text($event) })"
      /></label>
      <label class="flex items-center justify-between gap-3"
        >Headings<select
          class="field field-sm w-40"
          :value="look.headingFont"
          @change="setLook({ headingFont: text($event) })"
        >
          <option v-for="one in fontStacks" :key="one.name" :value="one.stack">
            {{ one.name }}
          </option>
        </select></label
      >
      <label class="flex items-center justify-between gap-3"
        >Text<select
          class="field field-sm w-40"
          :value="look.textFont"
          @change="setLook({ textFont: text($event) })"
        >
          <option v-for="one in fontStacks" :key="one.name" :value="one.stack">
            {{ one.name }}
          </option>
        </select></label
      >
      <label class="flex items-center justify-between gap-3"
        >Corners<input
          type="number"
          class="field field-sm w-20"
          min="0"
          max="24"
          :value="look.corner"
          @change="setLook({ corner: Number(text($event)) })"
      /></label>
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="form.look.logo === true"
          @change="setLook({ logo: checked($event) })"
        />
        the letterhead’s logo above it</label
      >
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="form.columns === 2"
          @change="store.setForm({ columns: checked($event) ? 2 : 1 })"
        />
        fields in two columns</label
      >
    </fieldset>
  </section>
</template>
