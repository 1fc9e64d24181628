<script setup lang="ts">
/** Each version of the letter that goes out: to how many, what it weighs, and whether its first link is seen at once. */
const store = useMailing()
const MOST = 8
const versions = computed(() => {
  const { weighed } = store
  if (!weighed) return []
  const one = {
    truths: [] as number[],
    people: store.eligible,
    without: [],
    weight: weighed.weight,
  }
  return weighed.renditions ?? [one]
})
const measured = reactive(new Map<string, FoldPlaces>())
const keyOf = (truths: readonly number[]) => truths.join(',')
function words(places: FoldPlaces | undefined) {
  if (places?.wide === undefined || places.narrow === undefined) return 'being measured…'
  if (places.wide === null) return 'no link'
  const below = (['wide', 'narrow'] as const).filter((screen) => places[screen]! > FOLD)
  if (below.length === 0) return 'seen at once'
  return `below the fold on ${below.join(' and ')} (${below.map((screen) => places[screen]).join(' and ')} px down)`
}
/** What was measured holds for the letter as it was saved then. */
const saved = computed(() => store.mailing?.letter.version ?? 0)
watch(saved, () => measured.clear())
</script>

<template>
  <section v-if="versions.length" class="sheet mt-4" aria-labelledby="going-out">
    <div class="sheet-head"><h2 id="going-out">What goes out</h2></div>
    <table class="w-full text-left text-[13px]">
      <thead class="muted">
        <tr>
          <th class="px-3.5 py-1.5 font-normal">Rendition</th>
          <th class="font-normal">People</th>
          <th class="font-normal">Weight</th>
          <th class="font-normal">First link</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(one, i) in versions.slice(0, MOST)"
          :key="keyOf(one.truths)"
          class="border-t border-line-soft"
        >
          <th scope="row" class="px-3.5 py-1.5 font-[560]">
            {{ String.fromCharCode(65 + i) }}
            <span class="muted font-normal">{{
              one.without.length
                ? `without ${several(one.without.length, 'part', 'parts')}`
                : 'the whole letter'
            }}</span>
          </th>
          <td>{{ count(one.people) }}</td>
          <td>{{ Math.max(1, Math.round(one.weight / 1024)) }} KB</td>
          <td>{{ words(measured.get(keyOf(one.truths))) }}</td>
          <td class="py-1 pr-3.5 text-right">
            <NuxtLink
              class="link"
              :to="{
                path: `/mail/${store.mailing!.id}/renderings`,
                query: one.truths.length ? { truths: keyOf(one.truths) } : {},
              }"
              >See it drawn</NuxtLink
            >
            <FoldMeasure
              v-if="store.mailing && store.saving === 'saved'"
              :key="`${saved} ${keyOf(one.truths)}`"
              :mailing="store.mailing.id"
              :truths="keyOf(one.truths)"
              @measured="measured.set(keyOf(one.truths), $event)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="versions.length > MOST" class="muted border-t border-line-soft px-3.5 py-1.5">
      And {{ versions.length - MOST }} more, each for fewer people.
    </p>
  </section>
</template>
