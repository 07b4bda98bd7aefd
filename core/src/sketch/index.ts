export * from './sketch'
export { hazardsIn, readSketch, touchable, type ReadSketch } from './read-line'
