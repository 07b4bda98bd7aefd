// What a plan says: every signal on a leg, or what can't be met together.

import type { SignalNeed, WiringChoice } from '../needs'
import type { Chip, ChipPin, ChipUnit, Device, DeviceWiring, Electrical } from '../parts'
import type { CostItem } from './costs'
import type { Way } from './ways'

/** How a signal is served on another board of the same header. */
export interface OnOther {
  chip: Chip
  pin: ChipPin
  /** The header position, `trestle main.3`. */
  place: string
  way: Way
  items: CostItem[]
}

export interface Wire {
  signal: SignalNeed
  pin: ChipPin
  unit?: ChipUnit
  line?: string
  select?: number
  items: CostItem[]
  /** The same header position on the other boards that the plan must hold on. */
  others?: OnOther[]
  locked: boolean
  /** The builder has soldered it there. */
  soldered?: true
  /** Set when the builder locked it where it can't work. */
  impossible?: string
}

export type WireEnd = Wire['signal']['ends'][number]
/** A terminal of this sort at the end of a line, and what its sheet says of it. */
export interface EndOf<K extends Electrical['kind']> {
  end: WireEnd
  electrical: Extract<Electrical, { kind: K }>
}
const isOf = <K extends Electrical['kind']>(
  electrical: Electrical,
  kind: K,
): electrical is Extract<Electrical, { kind: K }> => electrical.kind === kind

/** All ends of a line that are of this sort. */
export const endsOf = <K extends Electrical['kind']>(
  { signal: { ends } }: { signal: Pick<SignalNeed, 'ends'> },
  kind: K,
): EndOf<K>[] =>
  ends.flatMap((end) => {
    const { electrical } = end.signal
    return isOf(electrical, kind) ? [{ end, electrical }] : []
  })

/** A device whose wiring the plan chose, and the links to set for it. */
export interface ChosenWiring {
  need: string
  name: string
  part: Device
  wiring: DeviceWiring
  links: { link: string; to: string }[]
}

/**
 * `proven`: no plan costs less. `found`: the search was given up with a plan, and there may be a cheaper one.
 * `undecided`: it was given up without a plan, and there may be one. `clash`: there is none, and that is proven.
 */
export type PlanStatus = 'proven' | 'found' | 'undecided' | 'clash'

export interface Plan {
  status: PlanStatus
  wires: Wire[]
  cost: number
  /** No plan costs less. */
  bound: number
  /** How far below the cost a plan could still lie; 0 for a proven optimum. */
  gap: number
  /** Signals that can't be met together, when there is a clash. */
  clash: SignalNeed[]
  /** Devices that are part of the clash in every one of their wirings. */
  clashChoices: WiringChoice[]
  clashText?: string
  /** The rules without any one of which these could be met together. */
  clashRules: ClashRule[]
  /** The clash was not made as small as it could be in the time given. */
  clashUnsure?: true
  free: ChipPin[]
  wirings: ChosenWiring[]
}

/** Whether every signal has a leg, be it proven to be the best or not. */
export const isPlanned = (plan: Pick<Plan, 'status'> | undefined): boolean =>
  plan?.status === 'proven' || plan?.status === 'found'

/**
 * `radio`: a converter that it stops; `boards`: the other boards that the plan must hold on; `currents`: limits of leg
 * groups; `frequencies`: one for each timer; `locks`: where the builder put signals; `kept-free`: legs kept free.
 */
export type ClashRule = 'radio' | 'boards' | 'currents' | 'frequencies' | 'locks' | 'kept-free'
