export * from './analyse'
export * from './preview'
export * from './gauges'
export * from './questions'
