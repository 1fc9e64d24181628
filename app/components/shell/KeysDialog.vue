<script setup lang="ts">
const shell = useShell()
const keys = [
  ['Ctrl K', 'Find or do anything; in a text of a letter, make a link'],
  ...areas.map((area) => [`g ${area.key}`, `Go to ${area.name}`]),
  ['n', 'New here: a letter in Mail, an import in People'],
  ['j  k', 'Next, previous'],
  ['L', 'Labels of the mailing chosen'],
  ['/', 'Insert a block, in an empty text'],
  ['[  ]', 'Previous, next reader'],
  ['Ctrl Z, Ctrl ⇧ Z, Ctrl Y', 'Undo, redo'],
  ['Alt ↑, Alt ↓', 'Move the block'],
  ['Ctrl D, Delete', 'Duplicate the block, delete it (Esc stops writing)'],
  ['Ctrl C, X, V', 'Copy, cut, paste its row, also into another letter'],
  ['Ctrl C, Ctrl X', 'In a sequence: copy, move the step; then + where it goes'],
  ['?', 'This list'],
] as const
</script>

<template>
  <BaseDialog :open="shell.keys" title="Keys" @close="shell.keys = false">
    <dl class="grid grid-cols-[130px_1fr] gap-y-1.5">
      <template v-for="[key, what] in keys" :key="key"
        ><dt>
          <kbd class="tag">{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd></template
      >
    </dl>
    <template #actions><button class="btn" @click="shell.keys = false">Close</button></template>
  </BaseDialog>
</template>
