export * from './resolve'
export * from './load-capacitors'
export { clockChecks } from './checks'
