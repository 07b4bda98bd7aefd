export * from './resolve'
export * from './anatomy'
export * from './compare'
export { chipStage } from './stage'
