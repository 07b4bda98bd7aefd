export * from './curve'
export * from './led'
export * from './pulls'
