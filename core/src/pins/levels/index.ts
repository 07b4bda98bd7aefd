export { type LineLevel, levelsOf, converterRange } from './verdict'
export { referenceOf } from './reference'
export { farNet, fittedShift, isFar, neededRate, type Shift, shiftsFor } from './shift'
