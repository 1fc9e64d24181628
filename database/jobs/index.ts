/** Work for the engine, and how the engines are. */
export { engineNotes, takeDeaths } from './engine-notes'
export { beat, engineStops, liveEngines } from './heartbeat'
export {
  addJob,
  cancelJob,
  finishJob,
  forgetCopiesNaming,
  forgetPayload,
  jobById,
  jobIsOpen,
  jobProgress,
  jobsDied,
  takeJob,
} from './jobs'
export type { Job } from './jobs'
