<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import {
  groupPart,
  insertPart,
  isGroup,
  linesOf,
  movePart,
  partAt,
  removePart,
  replacePart,
  ungroupPart,
  type Group,
  type Path,
  type Rule,
} from '~~/core/segments'

/** The rule as lines that read as a sentence, each with the number it keeps. Lines are dragged, grouped and moved. */
const store = useSegment()
const list = ref<HTMLElement | null>(null)
/** Whoever has added a line goes on with what it asks about; where there is nothing to write, with the next line. */
watch(
  () => store.added,
  (path) => {
    if (!path) return
    store.added = null
    // After the list that it was chosen from has closed and given the keyboard back.
    setTimeout(() => {
      const value = list.value?.querySelector<HTMLInputElement>(
        `[data-path="${key(path)}"] input:not([role="combobox"], [type="checkbox"], [type="radio"])`,
      )
      value?.focus()
      value?.select()
    }, 50)
  },
)
const lines = computed(() => linesOf(store.rule).slice(1))
const dragged = ref<Path | null>(null)
const over = ref<string | null>(null)
const key = (path: Path) => path.join('.')
const groupWords = { all: 'all of these', any: 'any of these', none: 'none of these' }

/** The word before a line: how it joins what stands above it. */
function joint(path: Path, within: Group | null): string {
  const first = path.at(-1) === 0
  if (path.length === 1) return first ? 'Keep' : 'and'
  const words = { all: ['both', 'and'], any: ['either', 'or'], none: ['neither', 'nor'] } as const
  return words[within!.kind][first ? 0 : 1]
}
const countOf = (path: Path) => store.counts?.lines[key(path)]
const share = (path: Path) => {
  const n = countOf(path)
  return n === undefined || !store.counts?.everyone ? 0 : n / store.counts.everyone
}
const problemAt = (path: Path) =>
  store.counts?.problems.find((problem) => key(problem.path) === key(path))?.message
function set(path: Path, part: Rule) {
  store.change(replacePart(store.rule, path, part))
}
function drop(to: Path) {
  if (dragged.value) store.change(movePart(store.rule, dragged.value, to))
  dragged.value = null
  over.value = null
}
/** One place up or down among the lines of its group, or out of the group at its edge. */
function step(path: Path, by: 1 | -1) {
  const group = path.slice(0, -1)
  const at = path.at(-1)!
  const siblings = (partAt(store.rule, group) as Group).of.length
  const outside = at + by < 0 || at + by >= siblings
  if (!outside)
    return store.change(movePart(store.rule, path, [...group, by > 0 ? at + 2 : at - 1]))
  if (group.length) store.change(movePart(store.rule, path, by > 0 ? next(group) : group))
}
const next = (path: Path) => [...path.slice(0, -1), path.at(-1)! + 1]
function keys(event: KeyboardEvent, path: Path) {
  if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
  event.preventDefault()
  step(path, event.key === 'ArrowUp' ? -1 : 1)
}
function actions(path: Path, part: Rule) {
  const { rule } = store
  const list: [string, () => void][] = []
  if (isGroup(part)) {
    for (const kind of ['all', 'any', 'none'] as const)
      if (kind !== part.kind)
        list.push([`Make it “${groupWords[kind]}”`, () => set(path, { ...part, kind })])
    list.push(['Ungroup', () => store.change(ungroupPart(rule, path))])
  } else {
    list.push(['Add “or”…', () => store.change(groupPart(rule, path, 'any'))])
    list.push(['Exclude these', () => store.change(groupPart(rule, path, 'none'))])
  }
  list.push(['Repeat this line', () => store.change(insertPart(rule, next(path), part))])
  if (path.length > 1)
    list.push([
      'Move out of the group',
      () => store.change(movePart(rule, path, next(path.slice(0, -1)))),
    ])
  list.push(['Move up', () => step(path, -1)], ['Move down', () => step(path, 1)])
  return list
}
</script>

<template>
  <ol ref="list" class="m-0 list-none p-0" aria-label="Rules">
    <li
      v-for="{ path, part, within } in lines"
      :key="key(path)"
      :data-path="key(path)"
      class="relative flex min-h-[40px] items-start gap-2 border-b border-line-soft py-[6px] pr-3 pl-3"
      :class="over === key(path) && 'shadow-[inset_0_2px_0_var(--brass-500)]'"
      :draggable="!store.fixed && dragged !== null && key(dragged) === key(path)"
      @dragend="((dragged = null), (over = null))"
      @dragover.prevent="over = key(path)"
      @drop.prevent="drop(isGroup(part) && part.of.length === 0 ? [...path, 0] : path)"
      @keydown="keys($event, path)"
    >
      <span
        v-for="depth in path.length - 1"
        :key="depth"
        class="ml-[22px] w-[8px] flex-none self-stretch border-l-2 border-dashed border-canvas-300"
        aria-hidden="true"
      />
      <span class="muted w-[58px] flex-none pt-[3px]">{{ joint(path, within) }}</span>
      <div class="min-w-0 flex-1">
        <template v-if="isGroup(part)">
          <span class="inline-block pt-[3px]">{{ groupWords[part.kind] }}</span>
          <AddRule
            v-if="!store.fixed"
            class="ml-3 inline-block w-64"
            small
            label="Add to this group"
            @add="(rule: Rule) => store.add(path, rule)"
          />
        </template>
        <fieldset v-else :disabled="store.fixed" class="contents">
          <ConditionChips :condition="part" @change="set(path, $event)" />
        </fieldset>
        <p v-if="problemAt(path)" class="fault mt-1" role="alert">{{ problemAt(path) }}</p>
      </div>
      <span class="mt-[9px] h-[9px] w-[150px] flex-none rounded-sm bg-line-soft" aria-hidden="true">
        <span
          class="block h-full rounded-sm bg-canvas-500 transition-[width]"
          :style="{ width: `${share(path) * 100}%`, minWidth: countOf(path) ? '2px' : 0 }"
        />
      </span>
      <span
        class="num w-[64px] flex-none pt-[3px]"
        :class="[isGroup(part) && 'font-semibold', store.asking && 'text-ink-500']"
        :title="
          within?.kind === 'any'
            ? 'of those kept above the group'
            : 'kept by this line and all above'
        "
        >{{ countOf(path) === undefined ? '…' : count(countOf(path)!) }}</span
      >
      <span v-if="!store.fixed" class="flex flex-none items-center pt-[1px]">
        <Menu as="span" class="relative">
          <MenuButton
            class="grid h-6 w-6 place-items-center rounded text-ink-500 hover:bg-canvas-50"
            aria-label="More for this line"
            >⋯</MenuButton
          >
          <MenuItems
            class="floats absolute right-0 z-20 mt-1 w-52 rounded-md border border-line bg-sheet py-1 focus:outline-none"
          >
            <MenuItem v-for="[words, act] in actions(path, part)" :key="words" v-slot="{ active }">
              <button
                type="button"
                class="block w-full px-3 py-1.5 text-left"
                :class="active && 'bg-canvas-50'"
                @click="act"
              >
                {{ words }}
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
        <span
          class="grid h-6 w-5 cursor-grab place-items-center text-ink-500"
          title="Drag to move; Alt with an arrow moves the line, too"
          aria-hidden="true"
          @mousedown="dragged = path"
          >⁝</span
        >
        <button
          type="button"
          class="grid h-6 w-6 place-items-center rounded text-ink-500 hover:bg-canvas-50"
          :aria-label="`Remove line ${key(path.map((i) => i + 1))}`"
          @click="store.change(removePart(store.rule, path))"
        >
          ×
        </button>
      </span>
    </li>
  </ol>
</template>
