export {
  type BytePlan,
  bytePlans,
  type PatternBase,
  patternBases,
  portValue,
  readPattern,
  writePattern,
} from './byte'
export { costContext, type CostContext, type CostItem, costsOf, isDrivenByDevice } from './costs'
export { type PinName, pinNames } from './names'
export { findPins, legName, legSaid, passport, placeName, shortPlace, wireOn } from './passport'
export { pwmFit, timerFit } from './timer-fit'
export { attributeOf, isOutput, type RadioUse, stoppedByRadio, unitFor, type Way, waysToServe } from './ways'
export {
  type ChosenWiring,
  type ClashRule,
  type EndOf,
  endsOf,
  isPlanned,
  type OnOther,
  type Plan,
  type PlanStatus,
  type Wire,
  type WireEnd,
} from './wires'
