export { type Consumer } from './consumers'
export { type CellsUse, cellsUse, usedByVoltage } from './cells'
export {
  type BridgeFault,
  type Driven,
  type LoadedBridge,
  rankBridges,
  type RankedBridge,
  type RankedDriven,
} from './bridges'
export { type Burst, burstsOf, fallLimits, usualFall } from './bursts'
export { otherSources } from './checks/ways-out'
export { hottestOf } from './hottest'
export { type Charge, chargeOf, type Spent } from './charge'
export { objections, regulate, type Objection, type Regulation } from './regulate'
export { type Compared, measuredOf, type Suspect } from './measured'
export { rankedLeads, rankRegulators, type RankedRegulator, type RankedSource, rankSources } from './rank'
export { ledCurrent, type LedDevice } from './device-leads'
export type { LoadedLead, RankedFuse, RankedLead, RankedWire } from './leads'
export { furtherOf, type FurtherStream, type Station, type Streams, streamsOf } from './streams'
export * from './resolve'
export { powerStage } from './stage'
