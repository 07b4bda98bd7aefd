export * from './problem'
export * from './solve'
export * from './explain'
export { keepsBudgets } from './conflict'
