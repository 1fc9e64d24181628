import {
  listById,
  tagNamed,
  listPeople,
  suppressPeople,
  tagPeople,
  restorePeople,
} from '~~/database/people'
import { letPeopleIn, letPeopleOut, sequenceById } from '~~/database/sequences'
import { peopleActInput } from '~~/shared/people-inputs'

/** One act on some people. Answers with those for whom it changed something: the opposite on them is undo. */
export default defineEventHandler(async (event) => {
  const { ids, act, tag, listId, sequenceId, reason } = await readInput(event, peopleActInput)
  const { db, clock } = satchel()
  switch (act) {
    case 'tag':
    case 'untag':
      return { changed: tagPeople(db, ids, tagNamed(db, tag!), act === 'tag') }
    case 'list':
    case 'unlist': {
      if (!listId || !listById(db, listId)) throw fieldFault('listId', 'Choose a list.')
      const state = act === 'list' ? 'subscribed' : 'unsubscribed'
      return { changed: listPeople(db, ids, listId, state, reason!, clock()) }
    }
    case 'set-aside':
      return { changed: suppressPeople(db, ids, reason!, clock()) }
    case 'take-back':
      return { changed: restorePeople(db, ids) }
    case 'let-in': {
      const sequence = sequenceById(db, sequenceId!)
      if (sequence?.state !== 'running')
        throw refused('It does not run just now, so nobody can be let in.')
      return { changed: letPeopleIn(db, sequence, ids, clock()) }
    }
    case 'let-out':
      return { changed: letPeopleOut(db, sequenceId!, ids, clock()) }
  }
})
