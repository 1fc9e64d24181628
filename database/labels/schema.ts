import type { Generated } from 'kysely'
import type { Labelled } from '../../core/labels'

/** The tables of labels. */
export interface LabelTables {
  labels: {
    id: Generated<number>
    name: string
    /** The name by which two are one. */
    key: string
    /** Its uses stay, so that it can be given back whole. */
    deleted_at: number | null
  }
  label_uses: { kind: Labelled; item_id: number; label_id: number }
}

/** The triggers that keep these tables, by name; the migrations have their text. */
export const labelTriggers = {
  labels_go_with_mailings: 'mailings: what is deleted has no labels',
  labels_go_with_sequences: 'sequences: what is deleted has no labels',
  labels_go_with_sign_ups: 'sign_ups: what is deleted has no labels',
} as const
