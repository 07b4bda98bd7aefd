export * from './worked'
export * from './finding'
export * from './check'
export * from './print'
