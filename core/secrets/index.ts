/** Sealing: secrets that the database holds and cannot read. */
export { isSealedWith, sealText, unsealText } from './seal'
export type { SealKey } from './seal'
