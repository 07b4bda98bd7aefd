export * from './graph'
export * from './forward'
export * from './open'
export * from './made'
export { dropoutOf, behindPlug } from './voltages'
export * from './cells'
export { sourcesFor, usualCells } from './joined'
export * from './lead'
export * from './guard'
export * from './latch'
export { type Drawn, efficiencyOf, type RailLoad, takenBy } from './flows'
export * from './load'
export {
  type CellGuard,
  cellGuards,
  choosing,
  needless,
  type Misfit,
  misfits,
  needsProtection,
  unprotected,
} from './protection'
export { againstPlug, goesInto, jackOf, misfit, reversed } from './plug'
export { suppliesStage } from './stage'
