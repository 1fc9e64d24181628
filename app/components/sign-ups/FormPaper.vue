<script setup lang="ts">
import { readerLanguages, toldIn } from '~~/core/readers'
import {
  drawnLook,
  firstLanguage,
  formHtml,
  formStyle,
  nameOf,
  partsOf,
  type Drawing,
  type FormFault,
} from '~~/core/sign-ups'

/** The form as it stands on a page, written in place, in each of the states that a visitor sees. */
const store = useSignUp()
const of = computed(() => store.signUp!)
const form = computed(() => store.form!)
const look = computed(() => drawnLook(form.value, of.value.letterhead))
const told = computed(() => toldIn(readerLanguages[store.language], store.language, 'UTC'))
const fields = computed(() => new Map(of.value.fields.map((field) => [field.key, field])))
const drawing = computed<Drawing>(() => ({
  ...{ form: form.value, language: store.language, told: told.value, look: look.value },
  ...{ fields: fields.value, version: 0, action: '', token: '' },
  sender: { name: of.value.sender, postalAddress: of.value.postalAddress },
}))
/** Sent in with nothing but an address that is none: every mistake there can be. */
const mistakes = computed(() => {
  const faults: Record<string, FormFault> = {}
  const typed: Record<string, string[]> = {}
  for (const part of partsOf(form.value, 'field'))
    if (part.field === 'address') {
      faults[part.id] = 'address'
      typed[nameOf.field(part)] = ['tove at inkpost.example']
    } else if (part.required) faults[part.id] = 'empty'
  const [box] = partsOf(form.value, 'consent')
  if (box) faults[box.id] = box.required ? 'needed' : 'tick'
  return formHtml({ ...drawing.value, faults, typed })
})
const said = computed(() => (store.shownState === 'thanks' ? 'thanks' : 'confirmed'))
const wordsOf = (what: 'title' | 'text') => form.value[said.value][what][store.language] ?? ''
function say(what: 'title' | 'text', words: string) {
  const now = form.value[said.value]
  store.setForm(
    { [said.value]: { ...now, [what]: { ...now[what], [store.language]: words } } },
    `${said.value} ${what} ${store.language}`,
  )
}
const fallback = (what: 'title' | 'text') =>
  form.value[said.value][what][firstLanguage(form.value)] ||
  (what === 'title' ? 'What it says' : 'What comes next')
</script>

<template>
  <div
    class="mx-auto"
    :class="form.kind === 'hosted' ? 'px-6 py-8' : 'site relative px-6 py-7'"
    :style="{
      background: form.kind === 'hosted' ? of.letterhead.ground : undefined,
      width: store.phone ? '390px' : '100%',
    }"
  >
    <component :is="'style'">{{ formStyle(look) }}</component>
    <template v-if="form.kind !== 'hosted'">
      <span class="bar" style="width: 38%" /><span class="bar mt-4 !h-20" />
      <span class="bar mt-4" style="width: 82%" /><span class="bar" style="width: 64%" />
    </template>
    <div
      class="mx-auto max-w-[460px]"
      :class="
        form.kind === 'pop-over'
          ? 'shadow-[0_10px_28px_rgb(20_30_20/.18)]'
          : form.kind === 'hosted'
            ? 'shadow-[0_1px_2px_#0002]'
            : 'mt-5'
      "
    >
      <!-- What is drawn is made by core out of the form; every text in it is escaped. -->
      <!-- eslint-disable-next-line vue/no-v-html -->
      <div v-if="store.shownState === 'mistakes'" class="no-press" inert v-html="mistakes" />
      <div v-else class="sup" :lang="store.language">
        <img
          v-if="look.logo"
          class="sup-logo"
          :src="look.logo"
          :alt="of.sender"
          :width="look.logoWidth"
        />
        <div
          v-if="store.shownState === 'first'"
          class="sup-parts"
          :class="form.columns === 2 && !store.phone && 'two'"
        >
          <FormPartFace v-for="part in form.parts" :key="part.id" :part="part" :drawing="drawing" />
        </div>
        <div v-else class="sup-parts">
          <h2>
            <TypedInPlace
              :value="wordsOf('title')"
              :prompt="fallback('title')"
              label="Title"
              @change="say('title', $event)"
            />
          </h2>
          <p>
            <TypedInPlace
              :value="wordsOf('text')"
              :prompt="fallback('text')"
              label="Text"
              lines
              @change="say('text', $event)"
            />
          </p>
        </div>
      </div>
    </div>
    <template v-if="form.kind !== 'hosted'">
      <span class="bar mt-5" style="width: 76%" /><span class="bar" style="width: 58%" />
    </template>
  </div>
</template>

<style scoped>
.site {
  background: #e7eaef;
}
.bar {
  display: block;
  height: 11px;
  margin-top: 10px;
  background: #d3d8e0;
  border-radius: 3px;
}
</style>
