/**
 * What was deleted here, by its path, until lists that were read before have been read anew: nobody is led to what is
 * not there any more.
 */
const gone = ref<ReadonlySet<string>>(new Set())

export const isGone = (path: string) => gone.value.has(path)
export const markGone = (path: string) => void (gone.value = new Set([...gone.value, path]))
/** It was restored. */
export const markBack = (path: string) =>
  void (gone.value = new Set([...gone.value].filter((one) => one !== path)))
