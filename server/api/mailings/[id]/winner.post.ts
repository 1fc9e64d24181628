import { variantName } from '~~/core/dispatch'
import { decideTest } from '~~/database/results'
import { planOf } from '~~/database/mailings'
import { winnerInput } from '~~/shared/mailing-inputs'

/** Decides a test by hand: the rest gets this variant. */
export default defineEventHandler(async (event) => {
  const { variant } = await readInput(event, winnerInput)
  const mailing = mailingOf(event)
  const { test } = planOf(mailing)
  if (!test || mailing.started_at === null) throw refused('No test is under way here.')
  if (variant >= test.variants.length) throw refused(`There is no variant ${variantName(variant)}.`)
  const { db, clock } = satchel()
  const { user } = me(event)
  const by = user.name
  if (!decideTest(db, mailing, variant, by, clock())) throw refused('The test is decided already.')
  return { ok: true }
})
