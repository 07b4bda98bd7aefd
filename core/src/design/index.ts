export * from './types'
export * from './schema'
export * from './edits'
export * from './support'
