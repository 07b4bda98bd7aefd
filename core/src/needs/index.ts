export * from './resolve'
export * from './typed'
export { needsChecks } from './checks'
