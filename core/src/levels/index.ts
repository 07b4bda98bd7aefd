export type { FittingContext } from './context'
export { programmerGives } from './programmer'
export { referenceOf } from './reference'
export {
  farNet,
  fittedShift,
  isFar,
  leastInDiode,
  nearNet,
  passes,
  safeInDiode,
  type Shift,
  shiftNames,
  shiftsFor,
} from './shift'
export { busLow, chipDrives, chipReads, type End, thresholdOf } from './sides'
export { converterRange, levelsOf, type LineLevel } from './verdict'
export { busMode, busModes } from './bus-modes'
export { driverCurve, tableCurrent } from './driver'
