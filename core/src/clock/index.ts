export * from './formulas'
export * from './resolve'
export { clockChecks } from './checks'
