<script setup lang="ts">
import {
  fieldLabel,
  firstLanguage,
  partNames,
  senderLine,
  textKey,
  wordsFor,
  type Drawing,
  type FormPart,
} from '~~/core/sign-ups'

/** A part of a form where it stands: pressed, its settings are shown; its words are written in place. */
const props = defineProps<{ part: FormPart; drawing: Drawing }>()
const store = useSignUp()
const on = computed(() => store.chosen === props.part.id)
const first = computed(() => firstLanguage(props.drawing.form))
const key = computed(() => textKey(props.part))
const words = computed(() => {
  const all = key.value ? (props.part as unknown as Record<string, object>)[key.value] : {}
  return all as Record<string, string | undefined>
})
const value = computed(() => words.value[store.language] ?? '')
/** What is shown where this language has no words yet: those of the first. */
const prompt = computed(
  () => wordsFor(words.value, first.value, first.value) || partNames[props.part.kind],
)
function write(text: string) {
  if (!key.value) return
  store.setPart(
    props.part.id,
    { [key.value]: { ...words.value, [store.language]: text } },
    `${key.value} ${store.language}`,
  )
}
const label = computed(() =>
  props.part.kind === 'field' ? fieldLabel(props.part, props.drawing) : '',
)
const kind = computed(() =>
  props.part.kind === 'field'
    ? (props.drawing.fields.get(props.part.field)?.kind ?? 'text')
    : 'text',
)
const listed = computed(
  () =>
    props.part.kind === 'field' &&
    props.part.choices.length > 0 &&
    (kind.value === 'choices' || (kind.value === 'choice' && props.part.as !== 'list')),
)
const own = (of: object) => wordsFor(of, store.language, first.value)
const name = computed(() =>
  props.part.kind === 'field' ? `Field: ${label.value}` : partNames[props.part.kind],
)
const half = computed(() => props.part.kind === 'field' && props.part.field !== 'address')
function move(event: KeyboardEvent, by: -1 | 1) {
  if (!event.altKey) return
  event.preventDefault()
  store.move(props.part.id, by)
}
</script>

<template>
  <div
    class="relative rounded-[3px] outline-offset-4"
    :class="[
      on ? 'outline-2 outline-dashed outline-brass-500' : 'hover:outline-1 hover:outline-brass-500',
      half && 'half',
    ]"
    role="group"
    :aria-label="name"
    :data-part="part.id"
    @focusin="store.chosen = part.id"
    @mousedown="store.chosen = part.id"
    @keydown.up="move($event, -1)"
    @keydown.down="move($event, 1)"
  >
    <h2 v-if="part.kind === 'heading'">
      <TypedInPlace :value="value" :prompt="prompt" label="Heading" @change="write" />
    </h2>
    <p v-else-if="part.kind === 'text'">
      <TypedInPlace :value="value" :prompt="prompt" label="Text" lines @change="write" />
    </p>
    <template v-else-if="part.kind === 'picture'">
      <button
        v-if="part.src"
        type="button"
        class="block w-full"
        :aria-label="own(part.alt) || 'Picture'"
      >
        <img class="sup-picture" :src="part.src" :alt="own(part.alt)" />
      </button>
      <PictureSlot
        v-else
        @taken="
          (src, alt) =>
            store.setPart(part.id, {
              src,
              alt: { ...(part.kind === 'picture' && part.alt), [first]: alt },
            })
        "
      />
    </template>
    <div v-else-if="part.kind === 'field'" class="sup-field">
      <span class="sup-label"
        ><span class="flex items-baseline gap-1"
          ><TypedInPlace
            class="flex-none"
            :value="value || label"
            :label="`Label of ${label}`"
            @change="write"
          /><small v-if="!part.required">· {{ drawing.told.plain('formOptional') }}</small></span
        ></span
      >
      <template v-if="listed">
        <span v-for="choice in part.choices" :key="choice" class="sup-choice"
          ><span
            class="mt-0.5 size-[18px] flex-none border border-[#767c72]"
            :class="kind === 'choice' ? 'rounded-full' : 'rounded-[3px]'"
          /><span>{{ choice }}</span></span
        >
      </template>
      <button v-else type="button" class="sup-input text-left" :aria-label="`Settings of ${label}`">
        <span class="text-[#6a7066]">{{
          own(part.placeholder) ||
          (kind === 'choice' || kind === 'yesno' ? drawing.told.plain('formChoose') : '\u00a0')
        }}</span>
      </button>
      <span v-if="own(part.help)" class="sup-help">{{ own(part.help) }}</span>
    </div>
    <div v-else-if="part.kind === 'consent'" class="sup-box !cursor-text">
      <span
        class="mt-px size-5 flex-none rounded-[3px] border-[1.5px] border-[#767c72] bg-white"
        aria-hidden="true"
      />
      <span class="min-w-0 flex-1"
        ><TypedInPlace
          :value="value"
          :prompt="prompt"
          label="Wording of the consent"
          lines
          @change="write"
      /></span>
    </div>
    <div v-else-if="part.kind === 'button'" class="sup-send !cursor-text">
      <TypedInPlace :value="value" :prompt="prompt" label="Words of the button" @change="write" />
    </div>
    <div v-else-if="part.kind === 'small'" class="sup-small">
      <TypedInPlace
        :value="value"
        :prompt="on ? 'Anything else that has to be said' : ''"
        label="Small print"
        lines
        @change="write"
      />
      {{ senderLine(drawing.sender)
      }}<template v-if="drawing.form.privacy">
        · <u>{{ drawing.told.plain('formPrivacy') }}</u></template
      >
    </div>
    <button
      v-else
      type="button"
      class="block w-full rounded-[3px] border border-dashed border-[#b9bfb4] px-2 py-1 text-left text-[13px]"
    >
      Not seen: the value of <b>{{ part.param }}</b>
    </button>
  </div>
</template>
