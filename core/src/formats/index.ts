export * from './tables'
export * from './pin-header'
export * from './report'
