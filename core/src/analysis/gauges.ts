// The five numbers that decide a project.

import type { Design } from '../design'
import type { Results, Worked } from '../findings'
import { unpricedWords } from '../parts'
import { hottestOf } from '../power'
import { celsiusWords, durationWords, euro, formatQuantity, isGone } from '../quantity'

export type GaugeId = 'budget' | 'runtime' | 'hottest' | 'pins' | 'price'
export interface Gauge {
  id: GaugeId
  label: string
  /** Absent when there is nothing to compute yet; `instead` says what then. */
  worked?: Worked
  instead?: string
  /** In the unit of the value. */
  limit?: number
  /** Which corner counts. */
  corner: 'min' | 'typ' | 'max'
}

export const gaugesOf = ({ design, ...results }: Results & { design: Design }): Gauge[] => {
  const { chip, pins, power, build } = results
  return [
    {
      id: 'budget',
      label: design.needs.limits.current === undefined ? 'Peak current' : 'Budget used',
      worked: power.consumers.length > 0 ? power.fromSource : undefined,
      instead: 'nothing draws yet',
      limit: design.needs.limits.current,
      corner: 'max',
    },
    {
      id: 'runtime',
      label: 'Runtime',
      worked: power.runtime,
      instead: !power.source
        ? 'no source yet'
        : power.source.capacity
          ? 'nothing draws current yet'
          : 'no end: not on cells',
      corner: 'min',
    },
    {
      id: 'hottest',
      label: 'Hottest part',
      worked: hottestOf(results),
      instead: power.source ? 'no heat to speak of' : 'no source yet',
      corner: 'max',
    },
    {
      id: 'pins',
      label: 'Legs left',
      worked: chip.chip ? pins.left : undefined,
      instead: !chip.chip ? 'no chip yet' : pins.plan?.status === 'undecided' ? 'not decided' : 'no plan',
      corner: 'typ',
    },
    {
      id: 'price',
      label: `Parts${unpricedWords(build.parts)}`,
      worked: build.parts.length > 0 ? build.price : undefined,
      instead: 'no board yet',
      limit: design.needs.limits.price,
      corner: 'typ',
    },
  ]
}

/** By how much a gauge's value has changed. */
export const gaugeChange = (gauge: Gauge, difference: number): string => {
  if (gauge.id === 'hottest' && isGone(Math.abs(difference)))
    return difference > 0 ? 'far hotter' : 'far cooler'
  return `${difference > 0 ? '+' : '−'}${gaugeText(gauge, Math.abs(difference))}`
}

/** A gauge's value in words and units: hours and days for a runtime, euro for a price. */
export const gaugeText = (gauge: Gauge, value: number): string => {
  if (gauge.id === 'runtime') return durationWords(value)
  if (gauge.id === 'price') return euro(value)
  if (gauge.id === 'hottest') return celsiusWords(value)
  return formatQuantity(value, gauge.worked?.unit ?? '', 3)
}
