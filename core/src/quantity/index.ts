export * from './range'
export * from './notation'
export * from './preferred'
export * from './words'
