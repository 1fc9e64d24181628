/**
 * For how long tests wait for a page, ms, and for something to become so. Far longer than any needs, for a machine ten
 * times as slow; who writes a test says `SATCHEL_PATIENCE=0.1`, to be told sooner.
 */
const patience = Number(process.env.SATCHEL_PATIENCE ?? 1)
export const PAGE_WAITS = 120_000 * patience
export const WAITS = 400_000 * patience
