export * from './bsdl'
export * from './ibis'
