export { type LineLevel, levelsOf, converterRange } from './verdict'
export { referenceOf } from './reference'
export { busLow, thresholdOf } from './sides'
export { farNet, fittedShift, isFar, neededRate, passes, type Shift, shiftsFor } from './shift'
