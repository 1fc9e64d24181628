import type { Condition, ConditionOf } from '~~/core/segments'

/** What the chips of each kind of condition need: what is on file, to change a part of the condition, and what was chosen. */
export function conditionChips<Kind extends Condition['kind']>(
  props: { condition: ConditionOf<Kind> },
  emit: (name: 'change', condition: ConditionOf<Kind>) => void,
) {
  const store = useSegment()
  return {
    vocabulary: computed(() => store.vocabulary!),
    /** A part that a list gave as text is one of those the list offered. */
    set: (change: { [Part in keyof ConditionOf<Kind>]?: unknown }) =>
      emit('change', { ...props.condition, ...change } as ConditionOf<Kind>),
    valueOf: (event: Event) => (event.target as HTMLInputElement).value,
  }
}
