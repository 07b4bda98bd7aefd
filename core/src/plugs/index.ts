export { type Plug, type PlugId, railName, type Standing } from './standing'
export type { PlugsResult, Way } from './result'
export { plugsStage } from './stage'
