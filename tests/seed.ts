import fc from 'fast-check'

/**
 * The same draws in every run, so that a test fails for whoever changed something, and not for whoever runs it next.
 * `SATCHEL_SEED=7 npx vitest run --project unit` draws others.
 */
fc.configureGlobal({ seed: Number(process.env.SATCHEL_SEED ?? 1) })
