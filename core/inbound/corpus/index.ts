import type { Sample } from './compose'
import { returnedMail } from './returned-mail'
import { statusNotifications } from './status-notifications'
import { writtenByPeople } from './written-by-people'
import { writtenByPrograms } from './written-by-programs'

/** Mail that comes back, written for this project in the shapes of the usual servers, each with its right reading. */
export const corpus: readonly Sample[] = [
  ...statusNotifications,
  ...returnedMail,
  ...writtenByPeople,
  ...writtenByPrograms,
]

export type { Right, Sample } from './compose'
