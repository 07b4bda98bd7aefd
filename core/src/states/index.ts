export type { Period, State, StateId } from './state'
export { modeOf, statesOf } from './made'
export { overTime } from './over-time'
export { statesStage } from './stage'
