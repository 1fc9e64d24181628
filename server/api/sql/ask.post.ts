import { sqlInput } from '~~/shared/segment-inputs'

/** Answers a query; a fault in it answers 422 with a sentence. */
export default defineEventHandler(async (event) => {
  const { query } = await readInput(event, sqlInput)
  const answer = await askLong('sql', { query })
  if ('fault' in answer) throw fieldFault('query', answer.fault)
  return answer
})
