export { operatingPoint, type OperatingPoint, type Solved } from './point'
export { sensitivities, afterChange } from './sensitivity'
export { transient, type Transient, type TransientOptions } from './transient'
export { Contradiction, FloatingNet, ground, NotFound } from './system'
