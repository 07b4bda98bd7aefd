export * from './resolve'
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
export { cautionsBeside } from './steps'
export { buildStage } from './stage'
