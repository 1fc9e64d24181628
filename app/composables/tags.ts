import type { TagColor } from '~~/core/people'

export interface Tag {
  id: number
  name: string
  color: TagColor
  people: number
  version: string
}

/** All tags, and how each looks. */
export function useTags() {
  const { answer, reload } = useAnswer<Tag[]>(() => '/api/tags')
  const colors = computed(() => new Map(answer.value?.map(({ name, color }) => [name, color])))
  return {
    tags: answer,
    reload,
    /** The class of a tag by its name. */
    look: (name: string) => `tag tag-${colors.value.get(name) ?? 'plain'}`,
  }
}
