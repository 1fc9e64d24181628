<script setup lang="ts">
import { languageNames, type ReaderLanguage } from '~~/core/readers'
import { purposesOf, type ButtonPart, type ConsentPart, type SignUpForm } from '~~/core/sign-ups'

/** What one agrees to, word for word in each language; and the letter that confirms it. */
const store = useSignUp()
const form = computed(() => store.form!)
const purposes = computed(() => purposesOf(form.value))
const keyOf = (part: ConsentPart | ButtonPart) => (part.kind === 'consent' ? 'text' : 'label')
const wordsOf = (part: ConsentPart | ButtonPart) =>
  part.kind === 'consent' ? part.text : part.label
const write = (part: ConsentPart | ButtonPart, language: ReaderLanguage, text: string) =>
  store.setPart(part.id, { [keyOf(part)]: { ...wordsOf(part), [language]: text } })
const language = computed(() => store.language)
const words = (key: keyof SignUpForm['letter']) => form.value.letter[key][language.value] ?? ''
const setLetter = (key: keyof SignUpForm['letter'], text: string) =>
  store.setForm({
    letter: { ...form.value.letter, [key]: { ...form.value.letter[key], [language.value]: text } },
  })
const letter = useAnswer<{ subject: string; html: string }>(() =>
  store.signUp
    ? `/api/sign-ups/${store.signUp.id}/letter?language=${language.value}&of=${store.keeper?.state.value.known?.version ?? 0}`
    : null,
)
const text = (event: Event) => (event.target as HTMLInputElement).value
const checked = (event: Event) => (event.target as HTMLInputElement).checked
</script>

<template>
  <div v-if="store.form" class="grid h-full grid-cols-[minmax(0,1fr)_318px]">
    <div class="overflow-auto px-5 py-5">
      <div class="mx-auto grid max-w-[680px] gap-5">
        <section class="sheet" aria-label="What one agrees to">
          <div class="sheet-head">
            <h2>What one agrees to</h2>
            <span class="muted small">kept word for word with everybody who does</span>
          </div>
          <fieldset
            v-for="(part, i) in purposes"
            :key="part.id"
            class="grid gap-3 border-b border-line-soft p-4 last:border-0"
            :disabled="!store.canChange"
          >
            <legend class="sr-only">
              {{ part.kind === 'button' ? 'The button' : `Box ${i + 1}` }}
            </legend>
            <label v-for="code in form.languages" :key="code" class="grid gap-1"
              ><span class="muted small"
                >{{ part.kind === 'button' ? 'The button' : `Box ${i + 1}` }} in
                {{ languageNames[code] }}</span
              ><textarea
                class="field"
                rows="2"
                :lang="code"
                :value="wordsOf(part)[code] ?? ''"
                @change="write(part, code, text($event))"
              />
            </label>
            <ConsentFor :part="part" />
          </fieldset>
        </section>
        <section class="sheet" aria-label="Double opt-in">
          <div class="sheet-head"><h2>Double opt-in</h2></div>
          <fieldset class="grid gap-2 p-4" :disabled="!store.canChange">
            <label class="flex items-start gap-2"
              ><input
                type="checkbox"
                class="mt-1"
                :checked="form.doubleOptIn"
                @change="store.setForm({ doubleOptIn: checked($event) })"
              /><span
                >Nobody is on a list before they press the button in a letter to their
                address.</span
              ></label
            >
            <p class="muted small">
              {{
                form.doubleOptIn
                  ? 'The letter goes out within seconds; one reminder follows after 2 days, and after 7 it lapses. Until then they get nothing else.'
                  : 'Slips of the hand and other people’s addresses get on the list at once. They bounce and complain, and mailbox providers count that against all your mail. Somebody who is on file already confirms all the same.'
              }}
            </p>
          </fieldset>
        </section>
        <section class="sheet" aria-label="The confirming letter">
          <div class="sheet-head">
            <h2>The confirming letter</h2>
            <ChoiceButtons
              v-if="form.languages.length > 1"
              v-model="store.language"
              :options="form.languages.map((value) => ({ value, name: languageNames[value] }))"
              label="Language"
            />
          </div>
          <fieldset class="grid gap-2.5 p-4" :disabled="!store.canChange">
            <label class="grid gap-1"
              ><span class="muted small">Subject</span
              ><KeptInput
                class="field"
                :value="words('subject')"
                maxlength="300"
                placeholder="as in Settings → Words for readers"
                @taken="setLetter('subject', $event)"
            /></label>
            <label class="grid gap-1"
              ><span class="muted small">Text</span
              ><textarea
                class="field"
                rows="3"
                :value="words('text')"
                placeholder="as in Settings → Words for readers"
                @change="setLetter('text', text($event))"
              />
            </label>
            <label class="grid gap-1"
              ><span class="muted small">Button</span
              ><KeptInput
                class="field"
                :value="words('button')"
                maxlength="300"
                placeholder="as in Settings → Words for readers"
                @taken="setLetter('button', $event)"
            /></label>
          </fieldset>
          <p v-if="letter.problem.value" class="fault p-4" role="alert">
            {{ letter.problem.value }}
          </p>
          <div v-else-if="letter.answer.value" class="border-t border-line-soft p-4">
            <p class="muted small">It looks like this, where every box was ticked.</p>
            <iframe
              class="mt-2 h-[540px] w-full rounded border border-line"
              sandbox=""
              :title="`The confirming letter: ${letter.answer.value.subject}`"
              :srcdoc="framed(letter.answer.value.html)"
            />
          </div>
        </section>
        <section class="sheet" aria-label="What you do with it">
          <div class="sheet-head"><h2>What you do with it</h2></div>
          <fieldset class="grid gap-1 p-4" :disabled="!store.canChange">
            <label class="grid gap-1"
              ><span class="muted small">The page that says so; the small print leads to it</span
              ><KeptInput
                class="field"
                type="url"
                :value="form.privacy"
                maxlength="2000"
                placeholder="https://"
                @taken="store.setForm({ privacy: $event.trim() })"
            /></label>
          </fieldset>
        </section>
      </div>
    </div>
    <aside class="overflow-auto border-l border-line bg-sheet"><SignUpMarks /></aside>
  </div>
</template>
