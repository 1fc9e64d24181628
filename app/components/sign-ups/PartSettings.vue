<script setup lang="ts">
import { firstLanguage, partNames, type FormPart } from '~~/core/sign-ups'

/** What is set of the chosen part. */
const store = useSignUp()
const of = computed(() => store.signUp!)
const part = computed<FormPart>(() => store.chosenPart!)
const field = computed(() =>
  part.value.kind === 'field'
    ? of.value.fields.find(({ key }) => part.value.kind === 'field' && key === part.value.field)
    : undefined,
)
const name = computed(() => {
  if (part.value.kind !== 'field') return partNames[part.value.kind]
  return part.value.field === 'address' ? 'E-mail address' : (field.value?.name ?? part.value.field)
})
const stays = computed(
  () =>
    part.value.kind === 'button' || (part.value.kind === 'field' && part.value.field === 'address'),
)
const chooses = computed(() => field.value?.kind === 'choice' || field.value?.kind === 'choices')
const set = (change: object, mark?: string) => store.setPart(part.value.id, change, mark)
/** Words of the part in the language that is shown. */
const words = (key: 'help' | 'placeholder' | 'alt') =>
  ((part.value as unknown as Record<string, Record<string, string>>)[key] ?? {})[store.language] ??
  ''
const setWords = (key: string, text: string) =>
  set({
    [key]: {
      ...(part.value as unknown as Record<string, object>)[key],
      [store.language]: text,
    },
  })
const text = (event: Event) => (event.target as HTMLInputElement).value
const lines = (value: string) =>
  value
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
const onlyButton = computed(() => of.value.form.parts.every(({ kind }) => kind !== 'consent'))
</script>

<template>
  <section class="border-b border-line bg-canvas-50 px-4 py-3" aria-label="The chosen part">
    <div class="flex items-center gap-1.5">
      <h2 class="min-w-0 flex-1 truncate">{{ name }}</h2>
      <template v-if="store.canChange">
        <button
          type="button"
          class="icon-btn"
          aria-label="Move up"
          title="Alt ↑"
          @click="store.move(part.id, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="icon-btn"
          aria-label="Move down"
          title="Alt ↓"
          @click="store.move(part.id, 1)"
        >
          ↓
        </button>
        <button v-if="!stays" type="button" class="btn btn-sm" @click="store.remove(part.id)">
          Remove
        </button>
      </template>
    </div>
    <fieldset class="mt-2 grid gap-2.5" :disabled="!store.canChange">
      <template v-if="part.kind === 'field'">
        <label v-if="!stays" class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="part.required"
            @change="set({ required: ($event.target as HTMLInputElement).checked })"
          />
          has to be filled in</label
        >
        <label v-if="!stays" class="grid gap-1"
          ><span class="muted small">Why you ask it</span
          ><KeptInput
            class="field field-sm"
            :value="part.reason"
            maxlength="300"
            placeholder="e.g. the letter greets by it"
            @taken="set({ reason: $event })"
        /></label>
        <CostOfField v-if="!stays" :field="part.field" />
        <label v-if="chooses" class="grid gap-1"
          ><span class="muted small">What there is to choose from, a line each</span
          ><textarea
            class="field field-sm min-h-20"
            :value="part.choices.join('\n')"
            @change="set({ choices: lines(text($event)) })"
          />
        </label>
        <label v-if="field?.kind === 'choice'" class="grid gap-1"
          ><span class="muted small">Shown as</span
          ><select class="field field-sm" :value="part.as" @change="set({ as: text($event) })">
            <option value="list">a list that opens</option>
            <option value="radio">all at once, one of them</option>
          </select></label
        >
        <label class="grid gap-1"
          ><span class="muted small">Placeholder</span
          ><KeptInput
            class="field field-sm"
            :value="words('placeholder')"
            maxlength="300"
            @taken="setWords('placeholder', $event)"
        /></label>
        <label class="grid gap-1"
          ><span class="muted small">Help under it</span
          ><KeptInput
            class="field field-sm"
            :value="words('help')"
            maxlength="300"
            @taken="setWords('help', $event)"
        /></label>
      </template>
      <template v-else-if="part.kind === 'picture'">
        <label class="grid gap-1"
          ><span class="muted small">Alternative text</span
          ><KeptInput
            class="field field-sm"
            :value="words('alt')"
            maxlength="300"
            @taken="setWords('alt', $event)"
        /></label>
        <button
          v-if="part.src"
          type="button"
          class="btn btn-sm justify-self-start"
          @click="set({ src: '' })"
        >
          Another picture
        </button>
      </template>
      <label v-else-if="part.kind === 'hidden'" class="grid gap-1"
        ><span class="muted small">Which value of the page’s address</span
        ><KeptInput
          class="field field-sm"
          :value="part.param"
          maxlength="40"
          placeholder="utm_source"
          @taken="set({ param: $event.trim() })"
        /><span class="muted small">It is kept as the source.</span></label
      >
      <ConsentFor
        v-else-if="part.kind === 'consent' || (part.kind === 'button' && onlyButton)"
        :part="part"
      />
      <p v-else-if="part.kind === 'button'" class="muted small">
        What one agrees to is said by the boxes above it.
      </p>
      <p v-else class="muted small">
        Write it where it stands<template v-if="of.form.languages.length > 1">
          , in each language; without words it is shown as in
          {{ firstLanguage(of.form).toUpperCase() }}</template
        >.
      </p>
    </fieldset>
  </section>
</template>
