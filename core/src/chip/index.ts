export * from './resolve'
export * from './compare'
export { chipChecks } from './checks'
