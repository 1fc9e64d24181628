<script setup lang="ts">
import { safeLink, type Block } from '~~/core/letters'

/** Where a picture, a film or a button leads. */
defineProps<{ block: Block & { href: string } }>()
const store = useMailing()
// Written out in the template, its slashes would be taken for a comment by the checking of types.
const scheme = 'https://'
</script>

<template>
  <label for="href">Leads to</label>
  <KeptInput
    id="href"
    class="field field-sm"
    :placeholder="scheme"
    :value="block.href"
    @taken="store.update(block.id, { href: safeLink($event) })"
  />
</template>
