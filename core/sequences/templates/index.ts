import { customers } from './customers'
import { newReaders } from './new-readers'
import { occasions } from './occasions'

export { mapOfTemplate } from './build'
export type { SequenceTemplate } from './build'

/** What one can begin a sequence from. */
export const sequenceTemplates = [...newReaders, ...customers, ...occasions]
