export * from './carrier'
export { settledBy, type Deciding, type Settled } from './settled'
export { carrierStage, type Carrier } from './stage'
