import { fittedCapacitors, preferred } from '../circuit'
import { careful, supportChoice } from '../design'
import { fromDecision, fromRule, say } from '../findings'
import { formatQuantity } from '../quantity'
import { asStated, asVariable, dimensionOf, greatest, least, number, sum, type Term, total } from '../sums'
import type { LoadedContext, Undrawn } from './block'
import { decoupling } from './decoupling'

declare module '../circuit/support' {
  interface SupportRoles {
    'bulk capacitor': true
  }
}

/** How long a regulator or a lead takes to follow a step of the load. */
const response = 10e-6
const sag = 0.1

export const bulk = (context: LoadedContext): Undrawn[] => {
  const { chip, design, stock, power, rail } = context
  if (!stock.electrolytics) return []
  const Δt = fromRule('Δt', 'until the supply follows', response, 's', 'usual for a linear regulator')
  const ΔI = sum(
    { label: 'Step of the load', symbol: 'ΔI', unit: 'A', counts: 'max' },
    { I_work: asVariable(power.work), I_rest: asVariable(power.rest) },
    (i) => greatest(number(0, dimensionOf('A')), i.I_work.minus(i.I_rest)),
  )
  const stepped = ΔI.value.max
  const needed = sum(
    { label: 'Bulk capacitor', symbol: 'C', unit: 'F', counts: 'max' },
    { ΔI, Δt, ΔV: fromDecision('ΔV', 'sag allowed', sag, 'V', 'a tenth of a volt') },
    (i) => i.ΔI.times(i.Δt).over(i.ΔV),
  )
  const { tolerance } = stock.electrolytics
  const value = preferred(
    stock.electrolytics,
    Math.max(needed.value.max / (1 - tolerance), chip.support.bulk ?? 10e-6),
    'up',
  )
  // What of the chip’s decoupling is fitted.
  const small = fittedCapacitors(decoupling(context))
  const dip =
    small.length > 0
      ? sum(
          {
            label: 'Sag without the bulk capacitor',
            symbol: 'ΔV',
            unit: 'V',
            note: 'Held by the small capacitors alone, and never below nothing.',
          },
          { ΔI, Δt, V_DD: rail, ...Object.fromEntries(small.map((c) => [c.symbol, c])) },
          (i: Record<string, Term>) =>
            least(
              i.V_DD!,
              i.ΔI!.times(i.Δt!).over(
                total(
                  small.map((c) => i[c.symbol]!),
                  dimensionOf('F'),
                ),
              ),
            ),
        )
      : asStated('Sag without any capacitor', 'ΔV', 'V', rail, 'Nothing holds the rail at all.')
  const key = 'bulk'
  return [
    {
      key,
      role: 'bulk capacitor',
      name: 'bulk capacitor of the rail',
      part: stock.electrolytics,
      value,
      legs: [
        { name: '+', net: 'VCC' },
        { name: '−', net: 'GND' },
      ],
      why: `carries the rail over the step of ${formatQuantity(stepped, 'A', 2)} when things switch on`,
      worked: [needed],
      ...supportChoice(design, key, careful),
      risk: {
        severity: 'risks',
        grade: 'typical',
        ...say`A step of ${formatQuantity(stepped, 'A', 2)} would sag the rail by up to ${formatQuantity(dip.value.max, 'V', 2)} before the supply follows.`,
        facts: [
          say`The supply needs some microseconds to follow a step`,
          { ...say`The small capacitors alone can’t carry it`, worked: dip },
        ],
      },
    },
  ]
}
