// What holds a line before the program runs: the devices, the parts that we fit ourselves, the board, and the leg's own
// pull; and the level that they come to together.

import type { SupportPart } from '../circuit'
import { fromPart, fromRule, type Worked, type WorkedInput, say, type Sentence } from '../findings'
import { type Chip, type Library, type PinAttribute, type Rated, findPart } from '../parts'
import { exactly, formatQuantity, fullRange, type Range, within } from '../quantity'
import { dimensionOf, greatest, least, number, parallel, sum, type SumInput, type Term } from '../sums'
import type { Wire } from '../legs'

export type End = Wire['signal']['ends'][number]

export interface Hold {
  to: 'low' | 'high'
  resistance: Range
  /** An LED holds no nearer to its side than its forward voltage. */
  offset: Range
  text: string
  says: Sentence
  /** The device that it comes from; absent: a part of ours, or the board. */
  end?: End
  support?: SupportPart
  from?: { rated: Rated; field: string }
}

/** A device that drives the line, to a level that nobody knows before its own program or its sensor says so. */
export interface Driver {
  end: End
  text: string
  says: Sentence
}

export interface Holds {
  holds: Hold[]
  drivers: Driver[]
}

const none = exactly(0)

const ofEnd = (end: End, wire: Wire, library: Library): Hold | Driver | undefined => {
  const { electrical } = end.signal
  const { name, part } = end.instance
  const place = `${part.sheet}, ${end.signal.source ?? 'signals'}`
  switch (electrical.kind) {
    case 'tied':
      return {
        to: electrical.to === 'ground' ? 'low' : 'high',
        resistance: none,
        offset: none,
        ...say`${name} has no ${end.signal.terminal} here: its place is tied to ${electrical.to} (${part.sheet})`,
        end,
      }
    case 'logic-input':
      return electrical.pull && electrical.pullResistance
        ? {
            to: electrical.pull === 'down' ? 'low' : 'high',
            resistance: fullRange(electrical.pullResistance),
            offset: none,
            ...say`${name} pulls ${end.signal.terminal} ${electrical.pull} (${place})`,
            end,
            from: { rated: electrical.pullResistance, field: `${end.signal.id}.pullResistance` },
          }
        : undefined
    case 'open-drain':
      return electrical.fitted
        ? {
            to: 'high',
            resistance: fullRange(electrical.fitted),
            offset: none,
            ...say`${name} has a pull-up of ${formatQuantity(fullRange(electrical.fitted).typ, 'Ω', 3)} on its own board (${place})`,
            end,
            from: { rated: electrical.fitted, field: `${end.signal.id}.fitted` },
          }
        : undefined
    case 'led': {
      const led = findPart(library, 'led', electrical.led)
      const forward = led && fullRange(led.forward[0]!.voltage)
      return {
        to: electrical.to === 'ground' ? 'low' : 'high',
        resistance: none,
        offset: forward ?? exactly(1.6),
        ...say`${name} conducts to ${electrical.to} above its forward voltage of about ${formatQuantity(forward?.typ ?? 1.6, 'V', 2)} (${led?.sheet ?? part.sheet})`,
        end,
      }
    }
    case 'logic-output':
      if (electrical.openDrain) return undefined
      // A serial line rests high between its bytes, by the convention of all asynchronous serial links.
      return wire.signal.bus?.kind === 'uart'
        ? {
            to: 'high',
            resistance: none,
            offset: none,
            ...say`${name} holds its serial line high while it says nothing (${place})`,
            end,
          }
        : {
            end,
            ...say`${name} drives ${end.signal.terminal} high or low, as it happens to stand (${place})`,
          }
    default:
      return undefined
  }
}

const pulls: Partial<Record<SupportPart['role'], 'low' | 'high'>> = {
  'line pull-up': 'high',
  'select pull-up': 'high',
  'gate pull-down': 'low',
}

/** Parts of ours that pull the line itself, or the gate behind a resistor. */
const ofSupport = (support: SupportPart, wire: Wire): Hold | undefined => {
  const tolerance = support.part.kind === 'resistors' ? support.part.tolerance : 0
  if (!support.present || !support.value || support.signal !== wire.signal.id) return undefined
  const to = pulls[support.role]
  return to === undefined
    ? undefined
    : {
        to,
        resistance: within(support.value.value, tolerance),
        offset: none,
        ...say`The ${support.name} of ${support.value.marking} holds it ${to} until the program runs`,
        support,
      }
}

const ofBoard = (chip: Chip, wire: Wire): Hold[] =>
  (chip.board?.loads ?? [])
    .filter((l) => l.pin === wire.pin.id && l.pull && l.resistance)
    .map((l) => ({
      to: l.pull === 'down' ? 'low' : 'high',
      resistance: fullRange(l.resistance!),
      offset: none,
      ...say`${chip.board!.name}: ${l.what} pulls it ${l.pull!} (${l.source ?? chip.board!.sheet})`,
    }))

/** Everything that holds or drives the line of a wire before the program runs, but for the leg itself. */
export const holdsOf = (wire: Wire, chip: Chip, support: SupportPart[], library: Library): Holds => {
  const ends = wire.signal.ends.flatMap((e) => ofEnd(e, wire, library) ?? [])
  return {
    holds: [
      ...ends.filter((h): h is Hold => 'to' in h),
      ...support.flatMap((s) => ofSupport(s, wire) ?? []),
      ...ofBoard(chip, wire),
    ],
    drivers: ends.filter((h): h is Driver => !('to' in h)),
  }
}

type Strap = PinAttribute & { kind: 'strap' }

/** The leg’s own pull while it samples. */
export const ownPull = (chip: Chip, strap: Strap): { to: 'low' | 'high'; rated: Rated } | undefined => {
  const rated = strap.pull === 'up' ? chip.io.pullUp : strap.pull === 'down' ? chip.io.pullDown : undefined
  return rated && { to: strap.pull === 'up' ? 'high' : 'low', rated }
}

const inputOf = (h: Hold, symbol: string): WorkedInput => ({
  ...(h.from && h.end
    ? fromPart(symbol, 'what holds it', h.end.instance.part, h.from.field, h.from.rated, 'Ω')
    : { ...fromRule(symbol, 'what holds it', h.resistance.typ, 'Ω', h.text), value: h.resistance }),
  // Two alike are two.
  variable: `${symbol} ${h.text}`,
})

/**
 * The level of a line that resistors pull to ground and to the supply, V_DD / (1 + R_up / R_down); diodes take what is
 * above or below them. Undefined where nothing holds it.
 */
export const heldLevel = (
  V_DD: Worked,
  holds: Hold[],
  own: { to: 'low' | 'high'; input: WorkedInput } | undefined,
): Worked | undefined => {
  const clamps = holds.filter((h) => h.offset.max > 0)
  const plain = holds.filter((h) => h.offset.max === 0)
  if (plain.length === 0 && !own) return undefined
  const tied = plain.filter((h) => h.resistance.max === 0)
  const inputs: Record<string, SumInput> = { V_DD }
  const pulls: Record<'low' | 'high', string[]> = { low: [], high: [] }
  for (const [k, h] of plain.entries()) {
    if (tied.length > 0) continue
    const symbol = plain.length > 1 ? `R_${k + 1}` : 'R'
    inputs[symbol] = inputOf(h, symbol)
    pulls[h.to].push(symbol)
  }
  if (own && tied.length === 0) {
    inputs.R_own = own.input
    pulls[own.to].push('R_own')
  }
  for (const [k, h] of clamps.entries())
    inputs[`V_F${k + 1}`] = {
      symbol: `V_F${k + 1}`,
      label: 'forward voltage of an LED',
      value: h.offset,
      unit: 'V',
      origin: { kind: 'rule', source: h.text },
      variable: `V_F${k + 1} ${h.text}`,
    }
  return sum(
    {
      label: 'Level sampled at reset',
      symbol: 'V_strap',
      unit: 'V',
      ...(clamps.length > 0
        ? { note: 'An LED takes what is beyond its forward voltage, so the level stops there.' }
        : {}),
    },
    inputs,
    (i: Record<string, Term>) => {
      const nothing = number(0, dimensionOf('V'))
      const together = (of: string[]) => parallel(...of.map((s) => i[s]!))
      const level =
        tied.length > 0
          ? tied.some((h) => h.to === 'low')
            ? nothing
            : i.V_DD!
          : pulls.low.length === 0
            ? i.V_DD!
            : pulls.high.length === 0
              ? nothing
              : i.V_DD!.over(number(1).plus(together(pulls.high).over(together(pulls.low))))
      return clamps.reduce(
        (v, h, k) =>
          h.to === 'low' ? least(v, i[`V_F${k + 1}`]!) : greatest(v, i.V_DD!.minus(i[`V_F${k + 1}`]!)),
        level,
      )
    },
  )
}
