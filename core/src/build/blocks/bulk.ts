import { preferred } from '../../circuit'
import { careful, supportChoice } from '../../design'
import { fromDecision, fromRule, fromWorked, type Worked } from '../../findings'
import { exactly, formatQuantity } from '../../quantity'
import type { SupportBlock } from './block'

/** How long a regulator or a lead takes to follow a step of the load. */
const response = 10e-6
const sag = 0.1

export const bulk: SupportBlock = ({ chip, design, stock, power, rail }) => {
  if (!stock.electrolytics) return []
  const stepped = Math.max(0, power.work.value.max - power.rest.value.min)
  const needed: Worked = {
    label: 'Bulk capacitor',
    symbol: 'C',
    value: exactly((stepped * response) / sag),
    unit: 'F',
    formula: 'ΔI · Δt / ΔV',
    inputs: [
      { ...fromWorked(power.work), symbol: 'ΔI', label: 'step from rest to work', value: exactly(stepped) },
      fromRule('Δt', 'until the supply follows', response, 's', 'usual for a linear regulator'),
      fromDecision('ΔV', 'sag allowed', sag, 'V', 'a tenth of a volt'),
    ],
  }
  const value = preferred(stock.electrolytics, Math.max(needed.value.typ, chip.support.bulk ?? 10e-6), 'up')
  const dip: Worked = {
    label: 'Sag without the bulk capacitor',
    symbol: 'ΔV',
    value: exactly((stepped * response) / (chip.support.decoupling.length * 100e-9 || 100e-9)),
    unit: 'V',
    formula: 'ΔI · Δt / C_decoupling',
    inputs: [
      ...needed.inputs.slice(0, 2),
      fromRule(
        'C_decoupling',
        'all decoupling together',
        chip.support.decoupling.length * 100e-9,
        'F',
        'counted',
      ),
    ],
    note: 'Held by the small capacitors alone; in truth it sags until the supply follows.',
  }
  const key = 'bulk'
  return [
    {
      key,
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
        text: `A step of ${formatQuantity(stepped, 'A', 2)} would sag the rail by ${formatQuantity(Math.min(dip.value.typ, rail.value.typ), 'V', 2)} before the supply follows.`,
        facts: [
          { text: 'The supply needs some microseconds to follow a step' },
          { text: 'The small capacitors alone can’t carry it', worked: dip },
        ],
      },
    },
  ]
}
