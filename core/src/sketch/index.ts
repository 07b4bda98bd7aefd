export * from './sketch'
export { readSketch, type ReadSketch } from './read-line'
