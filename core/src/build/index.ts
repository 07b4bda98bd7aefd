export * from './resolve'
export { cautionWords, type Caution } from './cautions'
export { type BuildStep, type StepCheck } from './steps'
export {
  lineTotal,
  priceToGet,
  type PartsRow,
  type WireRow,
  type WireEnd,
  drawerKey,
  stillToGet,
  type ToGet,
} from './lists'
export { type BoardPart } from './placed'
export { buildStage } from './stage'
