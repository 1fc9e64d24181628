<script setup lang="ts">
import { safeLink } from '~~/core/letters'

/** The settings of the chosen block. */
const store = useMailing()
const block = computed(() => store.chosenBlock)
const names = {
  heading: 'Heading',
  text: 'Text',
  picture: 'Picture',
  button: 'Button',
  divider: 'Divider',
  space: 'Space',
  footer: 'Footer',
}
function setLink(value: string) {
  if (block.value) store.update(block.value.id, { href: safeLink(value) })
}
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="border-b border-line px-3.5 py-3">
    <template v-if="block">
      <h2>{{ names[block.kind] }}</h2>
      <TextTools
        v-if="'text' in block && store.editor"
        :key="block.id"
        :editor="store.editor"
        :lists="block.kind !== 'heading'"
      />
      <div class="mt-2.5 grid grid-cols-[92px_1fr] items-center gap-x-2.5 gap-y-1.5 text-[12.5px]">
        <template v-if="block.kind === 'heading'">
          <label for="level">Size</label>
          <select
            id="level"
            class="field field-sm"
            :value="block.level"
            @change="store.update(block.id, { level: Number(text($event)) as 1 | 2 })"
          >
            <option :value="1">large</option>
            <option :value="2">small</option>
          </select>
        </template>
        <template v-if="block.kind === 'button' || block.kind === 'picture'">
          <label for="href">Leads to</label>
          <input
            id="href"
            class="field field-sm"
            placeholder="https://"
            :value="block.href"
            @change="setLink(text($event))"
          />
        </template>
        <template v-if="block.kind === 'button' || block.kind === 'heading'">
          <label for="align">Stands</label>
          <select
            id="align"
            class="field field-sm"
            :value="block.align"
            @change="store.update(block.id, { align: text($event) as 'left' })"
          >
            <option value="left">left</option>
            <option value="center">in the middle</option>
            <option value="right">right</option>
          </select>
        </template>
        <template v-if="block.kind === 'picture'">
          <label for="alt">In words</label>
          <input
            id="alt"
            class="field field-sm"
            placeholder="What one sees on it"
            :value="block.alt"
            @input="store.update(block.id, { alt: text($event) })"
          />
          <label for="width">Width</label>
          <span class="flex items-center gap-2"
            ><input
              id="width"
              class="min-w-0 flex-1"
              type="range"
              min="10"
              max="100"
              step="5"
              :value="block.width"
              @input="store.update(block.id, { width: Number(text($event)) })"
            />{{ block.width }}%</span
          >
          <template v-if="block.src"
            ><span /><button
              class="btn btn-sm justify-center"
              @click="store.update(block.id, { src: '' })"
            >
              Choose another
            </button></template
          >
        </template>
        <template v-if="block.kind === 'space'">
          <label for="height">Height</label>
          <span class="flex items-center gap-2"
            ><input
              id="height"
              class="field field-sm w-20"
              type="number"
              min="4"
              max="200"
              :value="block.height"
              @change="store.update(block.id, { height: Number(text($event)) || 24 })"
            />px</span
          >
        </template>
        <p v-if="block.kind === 'divider'" class="muted col-span-2">Nothing to set here.</p>
        <p v-if="block.kind === 'footer'" class="muted col-span-2">
          The postal address comes from <NuxtLink to="/settings" class="link">Settings</NuxtLink>.
        </p>
      </div>
    </template>
    <template v-else
      ><h2>Letter</h2>
      <p class="muted mt-1.5 text-[12.5px]">
        Choose a block on the paper or in the outline to set how it looks and where it leads.
      </p></template
    >
  </section>
</template>
