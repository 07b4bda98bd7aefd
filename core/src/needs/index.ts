export * from './resolve'
export * from './typed'
export { askedStage, needsStage } from './stage'
