/**
 * People and what is known of them: addresses, fields, tags, lists and subscriptions with their evidence; how they
 * are found, changed, merged and erased.
 */
export {
  addNote,
  addPerson,
  changePerson,
  deleteNote,
  isSuppressed,
  listPeople,
  suppressPeople,
  tagPeople,
  restorePeople,
} from './changes'
export { erasePerson } from './erase'
export { erasedAsker, lastErasure, rememberErased } from './erased'
export { everythingKnown } from './everything-known'
export { makeFieldOrder, wantsFieldOrder } from './field-order'
export {
  addField,
  changeField,
  countValues,
  fieldVersion,
  mergeField,
  openFields,
  ownFields,
  previewRetyping,
  readFields,
  retypeField,
} from './fields'
export type { FieldChange } from './fields'
export { enrolmentsOf } from './in-sequences'
export { reasonsOfLeaving, tellWhyLeft } from './leave-reasons'
export { addList, changeList, listById, listVersion, listsWithCounts, readLists } from './lists'
export { mergePeople } from './merge'
export { personNow } from './merged'
export { dropUnusedField, dropUnusedTag } from './mentioned'
export { followFailure } from './not-arrived'
export { peopleColumns } from './order'
export type { PeopleOrder } from './order'
export {
  chosenPeople,
  countPeople,
  domainCounts,
  idsOfPeople,
  peoplePage,
  personByAddress,
  personDetails,
  anybody,
  pulsesOf,
  readerById,
  valuesOf,
} from './people'
export type { PeopleChoice } from './people'
export { personHistory } from './person-page'
export { rewriteRules } from './rewrite-rules'
export { changeSubscription, subscriptionOf, suppress, subscriptionState } from './subscriptions'
export {
  changeTag,
  deleteTag,
  joinTags,
  readGoneTags,
  readTags,
  tagNamed,
  tagVersion,
  tagsWithCounts,
} from './tags'
export { commonDomains, commonValues, findValues, eventNames, readVocabulary } from './vocabulary'
export { hushed } from './hushed'
export { beganBy, latestRound, roundKey } from './began-by'
export type { BeganBy, Round } from './began-by'
export { addTask, deleteTask, setTaskDone, tasksDone, tasksOf, tasksToDo } from './tasks'
export type { NewTask } from './tasks'
