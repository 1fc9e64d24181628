import type { Repair } from './repairs'

/** Something that a sequence lacks, or that may not be meant, as it stands beside the map. */
export interface MapMark {
  title: string
  /** The step it is about; null: Start, or the whole. */
  step: string | null
  /** What would mend it, where that can be done for one. */
  repair?: Repair
}
