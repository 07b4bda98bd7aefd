// The way from the plug to the rail: source, polarity diode, regulator.

import { careful, type Design, supportChoice, type SupportChoice } from '../design'
import { voltageAt } from '../electrical'
import { fromPart, fromWorked, type Worked } from '../findings'
import { type Diode, findPart, type Library, partsOfKind, type Regulator, type Source } from '../parts'
import { floorAtZero, fullRange, subtract } from '../quantity'

export const polarityKey = 'polarity-diode'

export interface Path {
  source?: Source
  regulator?: Regulator
  /** Where a plug can come reversed, the diode that would guard against it. */
  polarity?: SupportChoice & { diode: Diode }
}

/** A board brings its own plug: what guards it is the board’s, and no diode of ours. */
export const pathOf = (design: Design, library: Library, onBoard: boolean): Path => {
  const source = findPart(library, 'source', design.power.source)
  const regulator = findPart(library, 'regulator', design.power.regulator)
  const diode = partsOfKind(library, 'diode')
    .filter(
      (d) =>
        d.sort === 'schottky' && fullRange(d.reverse).max >= 2 * (source ? fullRange(source.voltage).max : 0),
    )
    .sort((a, b) => a.price - b.price)[0]
  // Without a regulator a diode's drop would be missing from the rail: then the plug is guarded by care alone.
  const canReverse = source?.sort === 'adapter' && regulator !== undefined && !onBoard
  return {
    source,
    regulator,
    polarity: canReverse && diode ? { ...supportChoice(design, polarityKey, careful), diode } : undefined,
  }
}

/** Voltage at the regulator's input (or of the rail when there is none), with `current` flowing. */
export const inputVoltage = (path: Path, current: Worked): Worked | undefined => {
  const { source, polarity } = path
  if (!source) return undefined
  const voltage = fullRange(source.voltage)
  const inputs = [fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')]
  if (!polarity?.present)
    return {
      label: 'Voltage after the plug',
      symbol: 'V_in',
      value: voltage,
      unit: 'V',
      formula: 'V_source',
      inputs,
    }
  const at = voltageAt(polarity.diode.forward, current.value.max)
  const light = voltageAt(polarity.diode.forward, current.value.min)
  const drop = { min: light.min, typ: voltageAt(polarity.diode.forward, current.value.typ).typ, max: at.max }
  return {
    label: 'Voltage after the polarity diode',
    symbol: 'V_in',
    value: floorAtZero(subtract(voltage, drop)),
    unit: 'V',
    formula: 'V_source − V_F',
    inputs: [
      ...inputs,
      fromPart(
        'V_F',
        `forward voltage of ${polarity.diode.name}`,
        polarity.diode,
        'forward',
        { ...drop, kind: 'typical', source: polarity.diode.forward[0]!.source },
        'V',
      ),
      fromWorked(current),
    ],
    note: 'V_F is read from the diode’s curve at the current that flows.',
  }
}
