export * from './problem'
export * from './solve'
export * from './explain'
