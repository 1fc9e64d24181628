<script setup lang="ts">
import { totalOf } from '~~/core/counting'
import { waitWords } from './waits'

/** A sequence as a line: its stops with who is there and what came of them, and where steps can be put in. */
const store = useSequence()
const of = computed(() => store.sequence!)
const mailOf = (id: number) => of.value.mailings.find((one) => one.id === id)
const startWords = computed(() => {
  const { when } = of.value.map.start
  if (when.is === 'event') return `Start: does “${when.name}”`
  const list = of.value.lists.find(({ id }) => id === of.value.listId)
  return list ? `Start: joins ${list.name}` : 'Start: joins a list'
})
const entered = computed(() => {
  const { inside, finished, left } = of.value.counts
  return inside + finished + left
})
const stops = computed(() => {
  const { counts, map } = of.value
  return [
    {
      id: 'start',
      kind: 'end',
      words: startWords.value,
      about: map.start.rule ? 'once a person, and only some' : 'once a person',
      count: `${count(entered.value)} came in`,
    },
    ...store.line.map(({ id, step }) => {
      if (step.kind === 'wait')
        return {
          id,
          kind: 'wait',
          words: `Wait ${waitWords(step.ms)}`,
          about: '',
          count: `${count(of.value.standing[id] ?? 0)} here`,
        }
      const mail = mailOf(step.mailingId)
      const delivered = totalOf(mail ?? {}, 'delivered')
      return {
        id,
        kind: 'mail',
        words: `Mail: ${mail?.subject.trim() || mail?.name || 'gone'}`,
        about: delivered
          ? `${percent((mail!.opened ?? 0) / delivered)} opened · ${percent((mail!.clicked ?? 0) / delivered)} clicked`
          : 'not sent yet',
        count: `${count(delivered)} sent`,
      }
    }),
    {
      id: 'finish',
      kind: 'end',
      words: 'Finish',
      about: counts.left ? `${people(counts.left)} left on the way` : '',
      count: `${count(counts.finished)} out`,
    },
  ]
})
const afterOf = (at: number) => (at === 0 ? null : stops.value[at]!.id)
</script>

<template>
  <ol class="mx-auto w-[520px] pt-6 pb-10" aria-label="Steps">
    <li v-for="(stop, at) in stops" :key="stop.id">
      <div class="flex items-center">
        <span
          class="w-[112px] rounded border border-line bg-sheet px-2 py-0.5 text-right text-[12px] whitespace-nowrap text-ink-700"
          >{{ stop.count }}</span
        >
        <span class="relative flex w-16 items-center justify-center self-stretch">
          <i
            class="absolute left-1/2 w-[6px] -translate-x-1/2 bg-canvas-500"
            :class="
              at === 0
                ? 'top-1/2 bottom-0'
                : at === stops.length - 1
                  ? 'top-0 bottom-1/2'
                  : 'inset-y-0'
            "
          />
          <svg class="relative" width="34" height="28" viewBox="-17 -14 34 28" aria-hidden="true">
            <rect
              v-if="stop.kind === 'end'"
              x="-16"
              y="-7"
              width="32"
              height="14"
              rx="7"
              fill="var(--canvas-800)"
            />
            <g v-else-if="stop.kind === 'mail'" fill="none" stroke="var(--canvas-800)">
              <rect
                x="-14"
                y="-11"
                width="28"
                height="22"
                rx="3"
                fill="var(--sheet)"
                stroke-width="2.5"
              />
              <path d="M-13 -8l13 9 13-9" stroke-width="2" />
            </g>
            <g v-else fill="none" stroke="var(--brass-600)" stroke-width="2.5">
              <circle r="10" fill="var(--sheet)" />
              <path d="M0 -5v5l4 3" stroke-width="2" />
            </g>
          </svg>
        </span>
        <component
          :is="stop.id === 'finish' ? 'span' : 'button'"
          :type="stop.id === 'finish' ? undefined : 'button'"
          class="min-w-0 flex-1 rounded-md border border-dashed px-2 py-1 text-left"
          :class="store.chosen === stop.id ? 'border-brass-500 bg-brass-100' : 'border-transparent'"
          :aria-pressed="stop.id === 'finish' ? undefined : store.chosen === stop.id"
          @click="stop.id !== 'finish' && (store.chosen = stop.id)"
        >
          <span class="block truncate font-semibold">{{ stop.words }}</span>
          <span v-if="stop.about" class="muted small block">{{ stop.about }}</span>
        </component>
      </div>
      <div v-if="at < stops.length - 1" class="flex items-center">
        <span class="w-[112px]" />
        <span class="flex w-16 flex-col items-center self-stretch">
          <span class="w-[6px] flex-1 bg-canvas-500" />
        </span>
        <span class="flex min-h-[38px] items-center gap-1.5 pl-2">
          <template v-if="store.canChange">
            <button
              class="btn btn-sm"
              :aria-label="`Mail after ${stop.words}`"
              @click="store.addMail(afterOf(at))"
            >
              + Mail
            </button>
            <button
              class="btn btn-sm"
              :aria-label="`Wait after ${stop.words}`"
              @click="store.addWait(afterOf(at))"
            >
              + Wait
            </button>
          </template>
        </span>
      </div>
    </li>
  </ol>
</template>
