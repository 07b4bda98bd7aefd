export * from './support'
export * from './netlist'
