<script setup lang="ts">
import {
  fontStacks,
  inherited,
  inheritedStyle,
  ranges,
  saidAt,
  type Style,
  type StyleKey,
  type StyleLevel,
} from '~~/core/letters'

/** How something looks: what is said here, and where the rest comes from. */
const props = defineProps<{
  /** The levels from the letter down to this one, the last is the one that is set here. */
  levels: { level: StyleLevel; style: Style | undefined }[]
  /** Whether a line may stand around it. */
  bordered?: boolean
}>()
const emit = defineEmits<{ change: [style: Style | undefined] }>()
const store = useMailing()
const own = computed(() => props.levels.at(-1)!.style)
const holds = computed<Style>(() => {
  const narrowSize = props.levels.findLast(({ style }) => style?.narrowSize !== undefined)
  return {
    ...inheritedStyle(store.look, ...props.levels.map(({ style }) => style)),
    ...(narrowSize ? { narrowSize: narrowSize.style!.narrowSize! } : {}),
    ...own.value,
  }
})
/** What is set in a place of its own. */
type Settable = Exclude<
  StyleKey,
  'backdrop' | 'backdropAt' | 'backdropFit' | 'align' | 'capitals' | 'edge'
>
const keys = computed<Settable[]>(() => {
  const inner = props.levels.at(-1)!.level !== 'letter'
  return [
    'ground',
    ...(inner ? (['space'] as const) : []),
    ...(props.bordered ? (['border', 'borderColor'] as const) : []),
    ...(['ink', 'accent', 'size', 'headingFont', 'textFont', 'corner', 'narrowSize'] as const),
    ...(inner ? (['narrowSpace', 'narrowAlign'] as const) : []),
  ]
})
const names: Record<Settable, string> = {
  ink: 'Text colour',
  accent: 'Links, buttons',
  headingFont: 'Headings',
  textFont: 'Text',
  size: 'Size',
  corner: 'Corners',
  ground: 'Background',
  space: 'Padding',
  border: 'Border',
  borderColor: 'Its colour',
  narrowSize: 'Size on phones',
  narrowSpace: 'Padding on phones',
  narrowAlign: 'Align on phones',
}
const colors = ['ink', 'accent', 'borderColor']
const fonts = ['headingFont', 'textFont']
const handedDown = (key: Settable) => (inherited as readonly string[]).includes(key)
const from = (key: Settable) => saidAt(key, props.levels)
const usual: Partial<Record<Settable, string>> = {
  space: 'usual',
  narrowSize: 'same',
  narrowSpace: 'same',
  border: 'none',
}
const range = (key: Settable) => ranges[key as keyof typeof ranges]
function set(key: Settable, value: string | number | undefined) {
  const { [key]: _before, ...rest } = own.value ?? {}
  const next = value === undefined ? rest : { ...rest, [key]: value }
  emit('change', Object.keys(next).length ? next : undefined)
}
const given = (event: Event) => (event.target as HTMLInputElement).value
const id = useId()
</script>

<template>
  <div class="grid grid-cols-[92px_1fr_auto] items-center gap-x-2.5 gap-y-1.5 text-[12.5px]">
    <template v-for="key in keys" :key="key">
      <label :for="`${id}-${key}`">{{ names[key] }}</label>
      <GroundField
        v-if="key === 'ground'"
        :id="`${id}-${key}`"
        :ground="own?.ground"
        :look="store.look"
        @change="set(key, $event)"
      />
      <span v-else-if="colors.includes(key)" class="flex items-center gap-2">
        <input
          :id="`${id}-${key}`"
          type="color"
          class="h-6 w-9 rounded border border-line bg-sheet"
          :value="holds[key] ?? '#ffffff'"
          @change="set(key, given($event))"
        />
        <span class="muted">{{ holds[key] ?? 'none' }}</span>
      </span>
      <select
        v-else-if="fonts.includes(key)"
        :id="`${id}-${key}`"
        class="field field-sm"
        :value="holds[key]"
        @change="set(key, given($event))"
      >
        <option v-for="font in fontStacks" :key="font.name" :value="font.stack">
          {{ font.name }}
        </option>
      </select>
      <select
        v-else-if="key === 'narrowAlign'"
        :id="`${id}-${key}`"
        class="field field-sm"
        :value="own?.narrowAlign ?? ''"
        @change="set(key, given($event) || undefined)"
      >
        <option value="">as on desktops</option>
        <option value="left">left</option>
        <option value="center">in the middle</option>
        <option value="right">right</option>
      </select>
      <span v-else class="flex items-center gap-2">
        <KeptInput
          :id="`${id}-${key}`"
          type="number"
          class="field field-sm w-20"
          :min="range(key)[0]"
          :max="range(key)[1]"
          :value="holds[key] ?? ''"
          :placeholder="usual[key] ?? ''"
          @taken="set(key, $event === '' ? undefined : Number($event))"
        />px
      </span>
      <button
        v-if="own?.[key] !== undefined"
        type="button"
        class="link small min-h-6"
        :aria-label="`reset ${names[key]}: as it is around`"
        @click="set(key, undefined)"
      >
        reset
      </button>
      <span v-else class="small muted">{{ handedDown(key) ? from(key) : '' }}</span>
    </template>
  </div>
</template>
