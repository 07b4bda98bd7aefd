export * from './sum'
export * from './read-curve'
export { junctionOf } from './junction'
export { UnitError } from './term'
export {
  exponential,
  greatest,
  least,
  logarithm,
  magnitude,
  number,
  parallel,
  powerOfTwo,
  readAt,
  rounded,
  squareRoot,
  type Term,
  total,
} from './term'
export { dimensionOf } from './dimension'
