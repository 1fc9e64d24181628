/** A template as a letter of this account would look that is made from it. */
export default defineEventHandler((event) =>
  letterSample(letterToStartFrom(getRouterParam(event, 'key') ?? '').letter),
)
