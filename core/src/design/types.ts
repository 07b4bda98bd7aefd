// The design: what the builder decided, and never a result. One plain JSON document, the only thing a user edits.

import type { Part } from '../parts'

export const stageNames = ['needs', 'chip', 'pins', 'power', 'build'] as const
export type StageName = (typeof stageNames)[number]

export const stances = ['by-the-book', 'lean', 'bare-bones'] as const
/** What support parts and margins are asked for. */
export type Stance = (typeof stances)[number]

export const feeders = ['rail', 'source', 'feed'] as const
/** Of a rail beside the chip’s own: `rail2`. */
export type FurtherId = `rail${number}`
/** What feeds a device: the chip’s rail, the source in front of the regulator, the second feed, or a further rail. */
export type FedBy = (typeof feeders)[number] | FurtherId

/** A rail beside the chip’s own, with a regulator of its own. */
export interface FurtherRail {
  id: FurtherId
  regulator: string
  /** What its regulator hangs on; absent: the source. */
  from?: Exclude<FedBy, 'source'>
}

/** As many as one can have. */
export const mostRails = 6

/** 2 for `rail2`. */
export const furtherNumber = (id: FurtherId): number => Number(id.slice('rail'.length))

const ordinals = ['second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth']

export const isFurther = (by: FedBy): by is FurtherId => !(feeders as readonly string[]).includes(by)

/** With an article before it: “rail”, “source”, “second feed”, “second rail”. */
export const feederName = (by: FedBy): string =>
  isFurther(by) ? `${ordinals[furtherNumber(by) - 2]} rail` : by === 'feed' ? 'second feed' : by

/** All that a device of this design can be fed by. */
export const feedersOf = ({ power }: { power: Pick<Design['power'], 'rails'> }): FedBy[] => [
  ...feeders,
  ...(power.rails ?? []).map((r) => r.id),
]

export interface NeedDevice {
  id: string
  part: string
  name: string
  count: number
  wiring?: string
  variant?: string
  /** Its bus address, where its links offer several. */
  address?: number
  /** Which of several buses of a kind it is on; absent: the first. */
  bus?: number
  /** Absent: the rail. */
  fedBy?: Exclude<FedBy, 'rail'>
  /** `<signal>.current` in amperes, `<signal>.frequency` in hertz. */
  settings?: Record<string, number>
  /** By signal: the transistor that switches it, where not the one that its file proposes. */
  transistors?: Record<string, string>
  /** What leads to each of them, from the board and back. */
  lead?: DeviceLead
  /** The bridge of this project that it hangs on, by its id, in the place of a transistor. What feeds that feeds it. */
  drivenBy?: string
}

export interface Limits {
  /** °C around the board, at its warmest. */
  ambient: number
  /** °C around it at its coldest; absent: nobody has said. */
  coldest?: number
  /** How often its cells are charged before others take their place; absent: nobody has said. */
  charges?: number
  /** Amperes from the source. */
  current?: number
  /** Euro. */
  price?: number
  /** Seconds that one set of cells must last at least. */
  runtime?: number
  /** Watt-hours a day from all sources. */
  energy?: number
  /** °C that the hottest junction may reach: regulator’s, the chip’s where there is none, bridges’, charger’s, that of a latch’s transistor. */
  heat?: number
  /** Pieces to fit and to join, the source and its lead not counted. */
  parts?: number
  /** Board, cm². */
  area?: number
  /** How much of the time the chip is awake, 0 to 1; absent: always. Where states are named, they say it. */
  awake?: number
}
export type LimitName = keyof Limits

/** Of an I2C bus, hertz: standard mode, fast mode, fast mode plus. */
export const busSpeeds = [100e3, 400e3, 1e6]

/** Hertz at which an I2C bus of the design runs. */
export const busSpeedOf = ({ needs }: Pick<Design, 'needs'>, bus = 1): number =>
  (bus > 1 ? needs.busSpeeds?.[bus] : undefined) ?? needs.busSpeed ?? 100e3

export const radioAnswers = ['pause', 'accept'] as const
/** The program pauses the radio for the reading, or lives with readings that fail while it is on. */
export type RadioAnswer = (typeof radioAnswers)[number]

/**
 * What the machine does for some of the time. One state of a project has no length: it has the rest of the time. Every other
 * says how long it lasts each time, and how often it comes.
 */
export interface StateChoice {
  id: string
  name: string
  /** Seconds, each time. */
  lasts?: number
  /** Seconds from one to the next … */
  every?: number
  /** … or times a day. */
  perDay?: number
  /** What wakes the chip for it: its time, or a device by its id; absent: its time where it comes every so often, else not said. */
  begins?: string
  /** The chip’s mode, by its id; absent: it works. */
  chip?: string
  /** Whether the radio is on; absent: off while the chip sleeps, else as the program uses it. */
  radio?: boolean
  /** Modes of devices, by the ids of both; absent: it goes through its own cycle. */
  modes?: Record<string, string>
}

export const measuredAt = ['source', 'rail'] as const

/** What a meter said of the built thing. It is what was seen, and never a promise of a sheet. */
export interface Measurement {
  id: string
  /** By its id: what the machine was doing. */
  state: string
  /** At the source, or at the chip’s rail, fed there instead of by its regulator. */
  at: (typeof measuredAt)[number]
  /** Amperes. */
  reading: number
  /** What is known of the meter: its range in amperes, the ohms that it puts in the way, its error as a share of the reading. */
  range?: number
  burden?: number
  accuracy?: number
  /** What the difference turned out to come from, in the builder’s words. */
  found?: string
}

export const leadOwners = ['source', 'feed'] as const
/** Whose lead it is. */
export type LeadOwner = (typeof leadOwners)[number]

/** Of cells that can be joined; absent: one. */
export interface CellsChoice {
  series?: number
  parallel?: number
}
export const mostCells = { series: 24, parallel: 12 }
/** In a sentence. */
export const leadNames: Record<LeadOwner, string> = {
  source: 'lead from the source',
  feed: 'lead of the second feed',
}
/** Where the design keeps it. */
export const leadField = { source: 'lead', feed: 'feedLead' } as const satisfies Record<LeadOwner, string>

/** Between a source and what it feeds: a wire there and one back, joints in them, a fuse in the plus, what guards a cell in the minus. */
export interface Lead {
  wire?: string
  /** Metres, one way. */
  length?: number
  joint?: string
  /** In plus and minus together. */
  joints?: number
  fuse?: string
  protection?: string
}

/** Between the board and a device: wires there and back, joints in them. */
export type DeviceLead = Pick<Lead, 'wire' | 'length' | 'joint' | 'joints'>

/** What a latch is made of, where that isn’t what its button’s file proposes. */
export interface Latch {
  /** The transistor in the plus. */
  pass?: string
  /** The two diodes by which the program reads the button. */
  diode?: string
  /** Ω, from the gate to the source. */
  pullUp?: number
  /** From the first line of the program to the one that holds, s. */
  setUp?: number
}

/** A cell that is charged on the board. */
export interface Charging {
  charger: string
  /** The source that is plugged in for it. */
  from?: string
  /** A; absent: the most that all of them stand. */
  current?: number
  /** Of a panel: hours of full sun a day in the poorest month; absent: nobody has said. */
  sun?: number
}

export const shiftKinds = ['divider', 'clamp', 'mosfet', 'buffer', 'resistor'] as const
/** What joins two levels in a line; a resistor alone joins none, and limits what flows into a side that is off. */
export type ShiftKind = (typeof shiftKinds)[number]

export interface ClockChoice {
  source: string
  frequency: number
  /** The crystal or resonator fitted. */
  part?: string
}

export interface Design {
  format: 1
  name: string
  notes?: string
  stance: Stance
  needs: {
    devices: NeedDevice[]
    limits: Limits
    /** The program uses the radio. */
    radio?: boolean
    /** The machine’s states, one of them for the rest of the time; absent: asleep and at work, by `limits.awake`. */
    states?: StateChoice[]
    /** Hertz of the I2C bus; absent: 100 kHz. */
    busSpeed?: number
    /** Hertz of the further I2C buses, by number, where they run at another speed than the first. */
    busSpeeds?: Record<string, number>
  }
  chip: {
    part?: string
    clock?: ClockChoice
    /** Other boards of the same header that the plan must hold on as well. */
    also?: string[]
  }
  pins: {
    /** Signal → pin that the builder insists on. */
    locks: Record<string, string>
    /** Signal → pin of wires that are soldered: they stay, whatever it costs, and through a change of the carrier. */
    soldered?: Record<string, string>
    /** The reset leg serves as a port. */
    resetAsPort?: boolean
    /** Pins that no signal may use. */
    excluded: string[]
    /** The plan to stay close to, so that one change moves few wires. */
    kept: Record<string, string>
    /** What is done about a converter that stops while the radio is on, by signal. */
    radio?: Record<string, RadioAnswer>
    /** Level shifts fitted into lines, by signal. */
    shifts?: Record<string, ShiftKind>
  }
  /** No regulator: the source feeds the rail itself. */
  power: {
    source?: string
    /** How many of it, where it is a cell that can be joined; of the second feed. */
    cells?: CellsChoice
    feedCells?: CellsChoice
    regulator?: string
    /** A source of its own for heavy loads, its ground joined to the board’s. */
    feed?: string
    /** The transistor that lies in the plus against a source put in the wrong way round, in the place of a diode. */
    guard?: string
    /** Rails beside the chip’s own. */
    rails?: FurtherRail[]
    /** What leads from the source to the board, and from the second feed to its loads. */
    lead?: Lead
    feedLead?: Lead
    /** Of the button that switches the project on, where it has one. */
    latch?: Latch
    charging?: Charging
    /** What was measured on the built thing. */
    measured?: Measurement[]
  }
  /** The facts it was planned with, by part: they change when the builder takes newer ones over, never by themselves. */
  parts?: Record<string, Part>
  build: {
    /** Support parts put in or left out against the stance. */
    support: Record<string, 'in' | 'out'>
  }
}

/** Every field that a design can have. */
export const designKeys = Object.keys({
  format: true,
  name: true,
  notes: true,
  stance: true,
  needs: true,
  chip: true,
  pins: true,
  power: true,
  parts: true,
  build: true,
} satisfies Record<keyof Design, true>) as readonly (keyof Design)[]

/** The design with the very objects of another wherever both say the same: so that it can be seen what an edit left alone. */
export const sharing = (design: Design, before: Design | undefined): Design =>
  before ? (shared(design, before, 2) as Design) : design

/** `depth`: so many levels of objects are gone into; deeper ones are the same as a whole or not at all. */
const shared = (now: unknown, before: unknown, depth: number): unknown => {
  if (now === before || JSON.stringify(now) === JSON.stringify(before)) return before
  if (depth === 0 || !isPlain(now) || !isPlain(before)) return now
  return Object.fromEntries(
    Object.entries(now).map(([key, value]) => [key, shared(value, before[key], depth - 1)]),
  )
}
const isPlain = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)

export const emptyDesign = (name: string): Design => ({
  format: 1,
  name,
  stance: 'by-the-book',
  needs: { devices: [], limits: { ambient: 30 } },
  chip: {},
  pins: { locks: {}, excluded: [], kept: {} },
  power: {},
  build: { support: {} },
})
