// The Chip stage: every chip in the library against this project, decided by the pin solver.

import { resolveClock } from '../clock'
import { type Design, sourceOf } from '../design'
import { fromPart, type Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { byPrice, type Chip, type Library } from '../parts'
import { type Carrier, carriers } from '../carrier'
import { againstPlug } from '../supply'
import { isPlanned, type Plan, type PlanStatus } from '../legs'
import { legsLeft, planPins, takenPins } from '../planner'
import { type Patience, share } from '../patience'
import { formatQuantity, fullRange } from '../quantity'
import { sum, type SumInput, type Term } from '../sums'

export interface CandidateChip {
  chip: Chip
  /** Proven: there is a plan, and nothing else speaks against it. Not true of what is not decided. */
  fits: boolean
  /** Why not, in words; empty when it fits. */
  no: string[]
  /** Whether it can serve everything was not found out in the time given, and nothing else rules it out. */
  undecided: boolean
  status: PlanStatus
  /** Legs that can still carry a signal, by its plan. */
  left?: number
  programLeft: number
  dataLeft: number
  workings: { left?: Worked; program: Worked; data: Worked }
  chosen: boolean
  /** What is troublesome though it fits: what its best plan gives up, devices that its rail can’t feed. */
  but: string[]
}

export interface ChipResult extends Carrier {
  /** The chosen one, judged like any other. */
  own?: CandidateChip
}

/** What a carrier is judged against. */
export interface Judged {
  design: Design
  library: Library
  needs: NeedsResult
  rail: Worked | undefined
}

/** What its supply speaks against it. */
const supplyObjections = (chip: Chip, { design, library, rail }: Judged): string[] => {
  const supply = fullRange(chip.supply.recommended)
  const source = sourceOf(design, library)
  const input = chip.board && fullRange(chip.board.input)
  const given = source && fullRange(source.voltage)
  if (input && given)
    return [
      ...(given.min < input.min || given.max > input.max
        ? [
            `its input takes ${formatQuantity(input.min, 'V')} to ${formatQuantity(input.max, 'V')}, and ${source.name} gives ${formatQuantity(given.typ, 'V', 3)}`,
          ]
        : []),
      ...againstPlug(source, chip.board, library).map(
        (s) => `${source.name} doesn’t suit its jack: ${s.text}`,
      ),
    ]
  return !chip.board && rail && (rail.value.min < supply.min || rail.value.max > supply.max)
    ? [
        `it runs on ${formatQuantity(supply.min, 'V')} to ${formatQuantity(supply.max, 'V')}, and the rail is ${formatQuantity(rail.value.typ, 'V', 3)}`,
      ]
    : []
}

/** Bytes that are left of its memories; negative where they are short. */
const memoriesLeft = (chip: Chip, needs: NeedsResult) => ({
  programLeft: chip.memory.program - (chip.memory.loader ?? 0) - needs.program.value.max,
  dataLeft: chip.memory.data - needs.data.value.max,
})

/** What speaks against it, in words. */
const objectionsTo = (chip: Chip, plan: Plan, of: Judged): string[] => {
  const { programLeft, dataLeft } = memoriesLeft(chip, of.needs)
  const short = (which: string, bytes: number) =>
    bytes < 0 ? [`its ${which} memory is ${-bytes} bytes short of what the devices’ code takes`] : []
  return [
    ...(plan.status === 'clash' ? [plan.clashText ?? 'the signals find no legs'] : []),
    ...plan.wires
      .filter((w) => w.impossible)
      .map((w) => `${w.signal.name} is locked on ${w.pin.id}: ${w.impossible}`),
    ...(of.design.needs.radio && !chip.radio ? ['it has no radio'] : []),
    ...supplyObjections(chip, of),
    ...short('program', programLeft),
    ...short('data', dataLeft),
  ]
}

/** One chip against the needs; the chosen one with its locks and clock. `known`: its plan, where it has been made. */
export const judgeChip = (
  chip: Chip,
  of: Judged,
  { known, patience }: { known?: Plan; patience?: Patience } = {},
): CandidateChip => {
  const { design, library, needs, rail } = of
  const own = chip.id === design.chip.part
  const clock = resolveClock(own ? design : { ...design, chip: { part: chip.id } }, library, chip, rail)
  const choices = own ? design.pins : { locks: {}, excluded: [], kept: {} }
  const plan =
    known ??
    planPins(
      {
        chip,
        needs: needs.open,
        choices,
        taken: takenPins(chip, clock, own && design.pins.resetAsPort),
        clock: clock.frequency.value.typ || undefined,
      },
      { tidied: false, patience },
    )
  const no = objectionsTo(chip, plan, of)
  return {
    chip,
    fits: no.length === 0 && isPlanned(plan),
    no,
    undecided: no.length === 0 && plan.status === 'undecided',
    status: plan.status,
    left: isPlanned(plan) ? plan.free.length : undefined,
    ...memoriesLeft(chip, needs),
    workings: {
      left: legsLeft(plan),
      program: memoryLeft(chip, 'program', needs.program),
      data: memoryLeft(chip, 'data', needs.data),
    },
    chosen: own,
    but: [
      ...(plan.status === 'found' ? [`a plan up to ${plan.gap} points cheaper may exist`] : []),
      ...troubles(plan),
      ...boardTroubles(chip, needs),
    ],
  }
}

/** What a plan gives up, the worst first; small prices such as a spent ability are left to the Pins page. */
const troubles = ({ wires }: Plan): string[] =>
  wires
    .flatMap((w) => w.items.filter((i) => i.points >= 8).map((i) => ({ ...i, on: w.pin.id })))
    .sort((a, b) => b.points - a.points)
    .map((i) => `${i.on}: ${i.reason}`)

const boardTroubles = ({ board }: Chip, needs: NeedsResult): string[] => {
  if (!board) return []
  const logic = fullRange(board.logic)
  const names = needs.instances.flatMap(({ name, part }) => {
    const supply = part.supply && fullRange(part.supply)
    return supply && (logic.min < supply.min || logic.max > supply.max) ? [name] : []
  })
  return names.length > 0
    ? [`${[...new Set(names)].join(', ')} can’t run from its ${formatQuantity(logic.typ, 'V', 2)}`]
    : []
}

/** What fits first, then without trouble, then the cheaper. */
export const candidateOrder = (a: CandidateChip, b: CandidateChip): number =>
  Number(b.fits) - Number(a.fits) ||
  Number(b.undecided) - Number(a.undecided) ||
  Number(a.but.length > 0) - Number(b.but.length > 0) ||
  byPrice(a.chip, b.chip) ||
  a.chip.id.localeCompare(b.chip.id)

/** Another carrier that fits, the cheapest; for fixes, when the chosen one can't work. */
export const fittingCarrier = (of: Judged, patience: Patience): Chip | undefined =>
  carriers(of.library)
    .filter((c) => c.id !== of.design.chip.part)
    .sort((a, b) => byPrice(a, b) || a.id.localeCompare(b.id))
    .find((chip) => judgeChip(chip, of, { patience: share(patience, 200) }).fits)

const memoryLeft = (chip: Chip, which: 'program' | 'data', taken: Worked): Worked => {
  const loader = which === 'program' ? (chip.memory.loader ?? 0) : 0
  const of = (symbol: string, label: string, field: string, bytes: number) =>
    fromPart(symbol, label, chip, field, { typ: bytes, kind: 'guaranteed' }, '')
  const inputs: Record<string, SumInput> = {
    M_chip: of('M_chip', `${which} memory of ${chip.name}`, `memory.${which}`, chip.memory[which]),
    ...(loader > 0 && { M_loader: of('M_loader', 'taken by the loader', 'memory.loader', loader) }),
    [taken.symbol]: taken,
  }
  return sum(
    {
      label: which === 'program' ? 'Program memory left, bytes' : 'Data memory left, bytes',
      symbol: 'M_left',
      unit: '',
    },
    inputs,
    (i: Record<string, Term>) =>
      (i.M_loader ? i.M_chip!.minus(i.M_loader) : i.M_chip!).minus(i[taken.symbol]!),
  )
}
