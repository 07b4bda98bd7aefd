// A block of the support circuit: one file each, all of this form, listed in around.ts.

import { type Stock, type SupportPart } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design } from '../design'
import type { Worked } from '../findings'
import type { ChargingPlan } from '../charging'
import type { LatchPlan } from '../latch'
import type { Chip, Library, Regulator, Source } from '../parts'
import type { PinsResult } from '../pins'
import { type Converter, type OpenSupply, type PolarityDiode, railOf } from '../supply'
import type { BoardPart, BuildStep } from './step'

/** What is known before it is known what is drawn. */
export interface BlockContext {
  design: Design
  library: Library
  stock: Stock
  chip: Chip
  clock: ClockResult
  pins: PinsResult
  /** Of the chip, without load. */
  rail: Worked
  supplies: OpenSupply
}

/** The net that the source’s rail lies on: of its plug, of the regulator’s input, or the chip’s own. */
export const sourceNet = (supplies: OpenSupply): string => {
  const plugged = supplies.sources.find((s) => s.id === 'source')
  return railOf(supplies, plugged?.to ?? supplies.own).net
}

interface Regulated {
  dissipation: Worked
  junction: Worked
  margin: Worked
}

/** What the loads make of the way to the rail. */
export interface Loaded {
  source?: Source
  regulator?: Regulator
  polarity?: PolarityDiode
  feed?: { source: Source }
  supplies: OpenSupply
  /** At the regulator’s input. */
  input?: Worked
  regulation?: Regulated
  regulations: readonly { converter: Converter; regulation: Regulated }[]
  rest: Worked
  work: Worked
}
export interface LoadedContext extends BlockContext {
  power: Loaded
}

/** Where its parts are fitted: after all that is fitted so far. */
export interface StepContext {
  /** The chip with the nets of its legs. */
  chip: BoardPart
  power: Loaded
  rail: Worked
  latch?: LatchPlan
  charging?: ChargingPlan
}

export type Undrawn = SupportPart & { draws?: undefined }

export interface SupportBlock {
  /** Its own among all blocks. */
  name: string
  /** The parts it asks for, none where it doesn’t apply; what draws from the rail all the time says so there. */
  parts?: (context: BlockContext) => SupportPart[]
  /** Those that depend on what flows; they can draw nothing, since that is summed by then. */
  loadedParts?: (context: LoadedContext) => Undrawn[]
  /** A board brings its own support circuit; this is there beside it. */
  besideBoards?: true
  /** How its parts that are in are fitted, and what is measured then. Not asked where none is in, unless there is something to do anyway. */
  step: (own: BoardPart[], context: StepContext) => Fitting
  evenWithoutParts?: true
  /** It is fitted when all the rest works. */
  last?: true
}

/** What a step says beside which parts are soldered in, and where. */
export interface Fitting extends Omit<BuildStep, 'refs' | 'does'> {
  /** What is done when they are in. */
  then?: string[]
}

export const pinNet = (chip: Chip, id: string): string => {
  const pin = chip.pins.find((p) => p.id === id)
  if (!pin) return id
  if (pin.type === 'supply') return 'VCC'
  if (pin.type === 'ground') return 'GND'
  // Where a board is fed.
  if (pin.rail === 'IN') return 'VIN'
  return pin.id
}

/**
 * The net of one of the chip’s legs: that of its signal (of two, the one that can be there), of the reset, or its own; the
 * reference keeps its own, on which its capacitor is.
 */
export const legNet = (chip: Chip, { plan }: PinsResult, id: string): string => {
  const here = plan?.wires.filter((w) => w.pin.id === id) ?? []
  const wire = here.find((w) => !w.impossible) ?? here[0]
  if (wire && wire.pin.type !== 'reference') return wire.signal.net
  return id === chip.support.reset?.pin ? 'RESET' : pinNet(chip, id)
}
