export * from './support'
export * from './netlist'
export * from './supplies'
