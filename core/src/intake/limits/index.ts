export { addressOf } from './device'
export * from './into'
export { type LimitsOf, readLimits } from './read'
export { type FoundFact, type LimitRow, shareOfSupply, type UnderstoodLimits } from './values'
