export { type ChargingPlan, planCharging, setKey } from './plan'
export { type ChargingResult } from './resolve'
export { chargingStage } from './stage'
