export * from './analyse'
export * from './preview'
export * from './gauges'
