/** How much mail each day brings to how many people. */
export default defineEventHandler((event) =>
  askLong('load', { ...daysFrom(event), now: satchel().clock() }, 'calendar'),
)
