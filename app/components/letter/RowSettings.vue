<script setup lang="ts">
import { hasFooter, MOST_COLUMNS } from '~~/core/letters'

/** The settings of the row in which the chosen block stands. */
const store = useMailing()
const row = computed(() => store.settledRow)
// Apart, so that the settings are not drawn again as one writes.
const style = computed(() => row.value?.style)
const levels = computed(() => [
  { level: 'letter' as const, style: store.letterStyle },
  { level: 'row' as const, style: style.value },
])
const many = computed(() => row.value?.columns.length ?? 1)
const columnOptions = Array.from({ length: MOST_COLUMNS }, (_, i) => ({
  value: i + 1,
  name: String(i + 1),
}))
const name = computed(() => (many.value === 1 ? 'Row' : `Row of ${many.value} columns`))
const index = computed(
  () => store.letter!.document.rows.findIndex(({ id }) => id === row.value?.id) ?? 0,
)
/** "Everyone else" needs a row with a rule before it. */
const canBeRest = computed(() => {
  const before = store.letter!.document.rows[index.value - 1]?.shownTo
  return !!before && 'rule' in before
})
function setShare(column: number, percent: number) {
  const shares = row.value!.columns.map(({ share }) => share)
  const others = 1 - shares[column]!
  const mine = Math.min(0.95, Math.max(0.05, percent / 100))
  const scale = others > 0 ? (1 - mine) / others : 0
  store.setShares(
    row.value!.id,
    shares.map((share, i) => (i === column ? mine : share * scale)),
  )
}
const given = (event: Event) => (event.target as HTMLInputElement).value
const id = useId()
</script>

<template>
  <section v-if="row" class="space-y-2 border-b border-line px-3.5 py-3">
    <h2>{{ name }}</h2>
    <ShownToField
      v-if="!hasFooter(row)"
      :key="row.id"
      :shown-to="row.shownTo"
      :name="name"
      :can-be-rest="canBeRest"
      @change="store.updateRow(row.id, { shownTo: $event })"
    />
    <div class="grid grid-cols-[92px_1fr] items-center gap-x-2.5 gap-y-1.5 text-[12.5px]">
      <span :id="`${id}-columns`">Columns</span>
      <ChoiceButtons
        :aria-labelledby="`${id}-columns`"
        :model-value="many"
        :options="columnOptions"
        @update:model-value="store.setColumns(row.id, $event)"
      />
      <template v-if="many > 1">
        <span :id="`${id}-widths`">Widths</span>
        <div class="flex items-center gap-1" role="group" :aria-labelledby="`${id}-widths`">
          <KeptInput
            v-for="(column, c) in row.columns"
            :key="c"
            type="number"
            min="5"
            max="95"
            class="field field-sm w-14"
            :aria-label="`Width of column ${c + 1}, per cent`"
            :value="Math.round(column.share * 100)"
            @taken="setShare(c, Number($event) || 50)"
          /><span class="muted">%</span>
        </div>
        <label :for="`${id}-narrow`">On phones</label>
        <select
          :id="`${id}-narrow`"
          class="field field-sm"
          :value="row.narrow ?? ''"
          @change="
            store.updateRow(row.id, {
              narrow: (given($event) || undefined) as 'reverse' | 'keep' | undefined,
            })
          "
        >
          <option value="">one under the other</option>
          <option value="reverse">the last one first</option>
          <option value="keep">side by side</option>
        </select>
      </template>
    </div>
    <HiddenField
      v-if="!hasFooter(row)"
      :hidden="row.hidden"
      @change="store.updateRow(row.id, { hidden: $event })"
    />
    <details class="text-[12.5px]">
      <summary class="cursor-pointer">Look of the row</summary>
      <StyleSettings
        class="mt-1.5"
        bordered
        :levels="levels"
        @change="store.updateRow(row.id, { style: $event })"
      />
      <BackdropField
        class="mt-1.5"
        :look="row.style"
        @change="store.updateRow(row.id, { style: $event })"
      />
    </details>
  </section>
</template>
