/** Labels on mailings, sequences and sign-ups. */
export {
  changeLabel,
  copyLabels,
  labelsNamed,
  labelUses,
  labelVersion,
  mergeLabels,
  putLabel,
  readLabels,
  setLabelDeleted,
  takeLabel,
} from './labels'
export type { Label } from './labels'
