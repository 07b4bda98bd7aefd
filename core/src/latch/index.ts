export { type LatchPlan, planLatch } from './plan'
export { latchHolding, type LatchResult, latchStandby } from './resolve'
export { latchStage } from './stage'
export { type LatchEvent, latchEvents, type LatchRun, type LatchTry, runLatch } from './run'
