<script setup lang="ts">
import {
  fontStacks,
  inheritedStyle,
  saidAt,
  type Style,
  type StyleKey,
  type StyleLevel,
} from '~~/core/letters'

/** How something looks: what is said here, and where the rest comes from. */
const props = defineProps<{
  /** The levels from the letter down to this one, the last is the one that is set here. */
  levels: { level: StyleLevel; style: Style | undefined }[]
  keys: StyleKey[]
}>()
const emit = defineEmits<{ change: [style: Style | undefined] }>()
const session = useSession()
const own = computed(() => props.levels.at(-1)!.style)
const holds = computed(() => ({
  ground: undefined,
  space: undefined,
  ...inheritedStyle(session.account!.letterhead, ...props.levels.map(({ style }) => style)),
  ...(own.value?.ground ? { ground: own.value.ground } : {}),
  ...(own.value?.space === undefined ? {} : { space: own.value.space }),
}))
const names: Record<StyleKey, string> = {
  ink: 'Ink',
  accent: 'Links, buttons',
  headingFont: 'Headings',
  textFont: 'Text',
  size: 'Size',
  corner: 'Corners',
  ground: 'Ground',
  space: 'Space',
}
const colors = ['ink', 'accent', 'ground']
const fonts = ['headingFont', 'textFont']
const handedDown = (key: StyleKey) => key !== 'ground' && key !== 'space'
const from = (key: StyleKey) => saidAt(key, props.levels)
function set(key: StyleKey, value: string | number | undefined) {
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
      <span v-if="colors.includes(key)" class="flex items-center gap-2">
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
      <span v-else class="flex items-center gap-2">
        <input
          :id="`${id}-${key}`"
          type="number"
          class="field field-sm w-20"
          :min="key === 'size' ? 10 : 0"
          :max="key === 'size' ? 28 : key === 'corner' ? 40 : 120"
          :value="holds[key]"
          :placeholder="key === 'space' ? 'usual' : ''"
          @change="set(key, given($event) === '' ? undefined : Number(given($event)))"
        />px
      </span>
      <button
        v-if="own?.[key] !== undefined"
        type="button"
        class="link small"
        :aria-label="`${names[key]}: as it is around`"
        @click="set(key, undefined)"
      >
        give back
      </button>
      <span v-else class="small muted">{{ handedDown(key) ? from(key) : '' }}</span>
    </template>
  </div>
</template>
