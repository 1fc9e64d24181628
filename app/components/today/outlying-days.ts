/** So many bars may be cut, and so many times the next one each of them must be at least. */
const MOST = 3
const TIMES = 4

/**
 * The days of a few large imports, which would flatten all others: the places of the largest numbers, in
 * order, where there is a wide gap between them and the rest. None where there is no rest.
 */
export function outlyingDays(numbers: readonly number[]): number[] {
  const places = numbers.map((_, i) => i).sort((a, b) => numbers[b]! - numbers[a]!)
  for (let many = Math.min(MOST, numbers.length - 1); many > 0; many--) {
    const [last, next] = [numbers[places[many - 1]!]!, numbers[places[many]!]!]
    if (next > 0 && last > TIMES * next) return places.slice(0, many).sort((a, b) => a - b)
  }
  return []
}
