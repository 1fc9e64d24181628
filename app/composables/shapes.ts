const shapes = reactive<Record<string, number>>({})

/** How high each picture is for its width, by its source, as soon as it has been seen. */
export const usePictureShapes = () => shapes
