/** Segments and what they keep: members, counts at each line, size over time; and who of a list is eligible. */
export {
  audiencePeople,
  audienceWaterfall,
  countAtDomain,
  countAudience,
  countGaps,
  dropOuts,
  eligible,
  somebodyLacking,
} from './audience'
export type { Audience } from './audience'
export { MOST_COMPARED, compareSegments } from './compare'
export { pastSizes } from './estimate'
export { countLines, membersPage, sharedWithMembers } from './lines'
export { factsOf } from './person-facts'
export {
  addSegment,
  askedAt,
  changeSegment,
  countMembers,
  countSeveral,
  deleteSegment,
  freezePeople,
  freezeRule,
  isMember,
  membersOf,
  moneyDigitsOf,
  readCatalog,
  readSegments,
  readyNow,
  restoreSegment,
  segmentById,
  isNameTaken,
  usesOfSegment,
} from './segments'
export { followSegment, trendOf, unfollowedSegments } from './trend'
export { choiceKept, choiceOnce } from './chosen'
export type { TableChoice } from './chosen'
