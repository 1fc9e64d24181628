import { chanceOf } from '../chance'

const first = [
  ...['Ada', 'Bram', 'Cato', 'Dilys', 'Edda', 'Finn', 'Greta', 'Hale', 'Isla', 'Joss', 'Kit'],
  ...['Lowen', 'Mira', 'Nils', 'Orla', 'Piet', 'Runa', 'Sten', 'Tamsin', 'Una', 'Viggo', 'Wilf'],
]
const last = [
  ...['Ashdown', 'Brackwater', 'Corran', 'Dunmore', 'Eastley', 'Farrow', 'Gorse', 'Hollin'],
  ...['Inchley', 'Kestrel', 'Larkin', 'Marram', 'Norwick', 'Oakes', 'Penrose', 'Quayle', 'Reddy'],
]
const domains = [
  ...['harbourmail.example', 'harbourmail.example', 'inkpost.example', 'inkpost.example'],
  ...['oldmill.example', 'workdesk.example', 'veilpost.example'],
]
const towns = ['Sandreach', 'Orrin', 'Gull Harbour', 'Fallow Quay']
const lists = ['wind-notes', 'workshop-news', 'offers']

/** Somebody who joins at the till, as the shop tells it: with what was on the card they filled in. */
export function newcomer(seed: string, hour: number, nth: number) {
  const chance = (what: string) => chanceOf('newcomer', what, seed, hour, nth)
  const pick = <T>(what: string, of: readonly T[]) => of[Math.floor(chance(what) * of.length)]!
  const [given, family] = [pick('first', first), pick('last', last)]
  return {
    address: `${given}.${family}.${hour}${nth}@${pick('domain', domains)}`.toLowerCase(),
    values: {
      first_name: given,
      last_name: family,
      ...(chance('has town') < 0.8 ? { town: pick('town', towns) } : {}),
    },
    lists: lists
      .filter((list, i) => i === 0 || chance(list) < 0.4)
      .map((list) => ({ list, agreed: 'Yes, send me this. (ticked on the card at the till)' })),
  }
}
