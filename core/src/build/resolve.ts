// The Build stage: support circuit, netlist, parts list, wiring table and steps.

import { type Around, type BoardPart, type BuildStep, loadedBlocks } from '../blocks'
import { makeNetlist, type Net, stockOf, type SupportPart } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design } from '../design'
import type { Worked } from '../findings'
import { planCharging } from '../charging'
import { planLatch } from '../latch'
import type { NeedsResult } from '../needs'
import type { Library } from '../parts'
import { isPlanned } from '../legs'
import type { PinsResult } from '../pins'
import type { PowerResult } from '../power'
import { areaOf } from './area'
import { type PartsRow, partsList, piecesOf, totalPrice, type WireRow, wiringTable } from './lists'
import { placeParts } from './placed'
import { buildSteps } from './steps'

export interface BuildResult {
  /** Every support part, in or out. */
  support: SupportPart[]
  placed: BoardPart[]
  nets: Net[]
  parts: PartsRow[]
  price: Worked
  /** Pieces to fit and to join. */
  pieces: Worked
  /** cm². */
  area: Worked
  /** What is on it and not in its area: their files give no size. */
  unsized: string[]
  wiring: WireRow[]
  steps: BuildStep[]
  /** What is still to be decided before there is a board. */
  missing: string[]
}

/** What the stage stands on. */
interface Ready {
  design: Design
  library: Library
  around: readonly Around[]
  needs: NeedsResult
  clock: ClockResult
  pins: PinsResult
  power: PowerResult
}

export const resolveBuild = ({ design, library, around, needs, clock, pins, power }: Ready): BuildResult => {
  const missing = [
    ...(pins.chip ? [] : ['a chip']),
    ...(power.source ? [] : ['a source']),
    ...(pins.plan && !isPlanned(pins.plan) ? ['a plan in which every signal has a leg'] : []),
  ]
  if (!pins.chip || !power.rail)
    return {
      support: [],
      placed: [],
      nets: [],
      parts: [],
      price: totalPrice([]),
      pieces: piecesOf([]),
      ...areaOf([]),
      wiring: [],
      steps: [],
      missing,
    }
  const circuit = loadedBlocks(around, {
    design,
    library,
    stock: stockOf(library),
    chip: pins.chip,
    clock,
    pins,
    power,
    rail: power.rail,
    supplies: power.supplies,
  })
  const support = [...circuit.flatMap((c) => c.parts), ...pins.support]
  const placed = placeParts({ design, chip: pins.chip, pins, needs, support, supplies: power.supplies })
  const nets = makeNetlist(placed)
  const planned = { design, library, stock: stockOf(library) }
  const charging = planCharging(planned)
  const parts = partsList(
    placed,
    [power.source, power.feed?.source, charging?.from],
    [...power.leads, ...power.deviceLeads],
  )
  return {
    support,
    placed,
    nets,
    parts,
    price: totalPrice(parts),
    pieces: piecesOf(placed),
    ...areaOf(placed),
    wiring: wiringTable(nets, placed),
    steps: buildSteps(placed, circuit, needs, power, {
      latch: pins.chip.board ? undefined : planLatch(planned, pins),
      charging,
    }),
    missing,
  }
}
