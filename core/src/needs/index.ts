export * from './resolve'
export { ownNets } from './nets'
export * from './typed'
export { askedStage, needsStage } from './stage'
