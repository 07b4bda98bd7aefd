export * from './curve'
export * from './led'
export * from './levels'
export * from './pulls'
