import type { DueTelling } from '../../database/sequences'

/** What one of the team is told by mail of those who came by a step of a sequence. */
export function stepMail(
  tellings: readonly DueTelling[],
  url: string,
): { subject: string; text: string } {
  const [first] = tellings as [DueTelling]
  const nameOf = ({ first_name, last_name, address }: DueTelling) =>
    [first_name, last_name].filter(Boolean).join(' ') || address
  const told = tellings.map((one) =>
    [
      nameOf(one) === one.address ? one.address : `${nameOf(one)}, ${one.address}`,
      `  ${one.text.replaceAll('\n', '\n  ')}`,
      `  ${url}/people/${one.person_id}`,
    ].join('\n'),
  )
  const who = tellings.length === 1 ? nameOf(first) : `${tellings.length} people`
  return {
    subject: `${who} came by a step of ${first.name}`,
    text: `${told.join('\n\n')}\n\n--\nSatchel tells you because a step of the sequence “${first.name}” says so:\n${url}/sequences/${first.sequence_id}\n`,
  }
}
