export * from './ways'
export { type CostItem, deviceDrives } from './costs'
export * from './plan'
export * from './wires'
export * from './reach'
export * from './passport'
export * from './levels'
export * from './names'
export * from './byte'
export { legGrade, legLoads, loadSums } from './drive'
export { type ConverterSum, type PwmSum, topCode } from './sums'
export { fewestSteps, pwmFit, timerFit } from './timer-fit'
export { type PullWindow } from './windows'
export * from './resolve'
export * from './question'
export { pinsAcross, type Swap, swapTo, swapWords } from './swap'
export {
  busSpeeds,
  driverCurve,
  fittedResistor,
  gateKey,
  ledKey,
  type LedOnLeg,
  netOf,
  tableCurrent,
} from './support'
export { linksToSet, makeDemand, type PinChoices, type PinQuestion } from './demand'
export { pinsStage, planStage } from './stage'
export { swapFix } from './checks/fixes'
export { endless, type Patience, type Progress, share, steps, usualPatience } from '../patience'
