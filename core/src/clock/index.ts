export * from './resolve'
export * from './load-capacitors'
export { clockStage } from './stage'
