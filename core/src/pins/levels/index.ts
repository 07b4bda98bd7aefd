export { type LineLevel, levelsOf, converterRange } from './verdict'
export { farNet, fittedShift, isFar, neededRate, type Shift, shiftsFor } from './shift'
