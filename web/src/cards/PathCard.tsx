// From plug to load on a card: every rail under what feeds it, with its volts and amperes, and what hangs on it.

import { capital, formatQuantity, type Range } from '@root-board/core/quantity'
import { fromTheSource, type Supply } from '@root-board/core/supply'
import type { ReactNode } from 'react'
import { useStage } from '../shared/analysis'
import { fit, ink, pencil } from './ink'
import { Picture } from './Picture'

const row = 19
const indent = 30
const width = 640

const volts = ({ min, max }: Range) => {
  const [a, b] = [formatQuantity(min, 'V', 3), formatQuantity(max, 'V', 3)]
  return a === b ? a : `${a} to ${b}`
}
const amps = (i: number) => formatQuantity(i, 'A', 3)

/** How many diodes and converters lie between a rail and its source. */
const depthOf = (supply: Supply, id: string): number => {
  const link = [...supply.guards, ...supply.converters].find((l) => l.to === id)
  return link ? 1 + depthOf(supply, link.from) : 0
}

interface Line {
  depth: number
  text: string
  number?: string
  kind: 'source' | 'through' | 'rail' | 'load'
  /** A, of a stream drawn beside it. */
  flows?: number
}

export const PathCard = () => {
  const { analysis, design } = useStage()
  const { power } = analysis
  const { supplies, loads } = power
  const most = Math.max(...loads.sources.map((s) => s.work.value.max), 1e-9)
  const lines = fromTheSource(supplies).flatMap((rail): Line[] => {
    const voltage = loads.rails[rail.id]?.voltage ?? supplies.open[rail.id]
    if (!voltage) return []
    const depth = depthOf(supplies, rail.id)
    const guard = supplies.guards.find((g) => g.to === rail.id && g.diode.present)
    const converter = supplies.converters.find((c) => c.to === rail.id)
    const heat = power.regulations.find((r) => r.converter.id === converter?.id)?.regulation.dissipation
    const current = loads.rails[rail.id]?.work.value.max
    const on = power.consumers.filter((c) => c.from === rail.id)
    return [
      ...supplies.sources
        .filter((s) => s.to === rail.id)
        .map((s): Line => ({ depth, kind: 'source', text: s.part.name, number: '' })),
      ...(guard ? [{ depth, kind: 'through' as const, text: `through ${guard.diode.diode.name}` }] : []),
      ...(converter
        ? [
            {
              depth,
              kind: 'through' as const,
              text: `through ${converter.part.name}${heat ? `, up to ${formatQuantity(heat.value.max, 'W', 3)} of heat` : ''}`,
            },
          ]
        : []),
      {
        depth,
        kind: 'rail',
        text: `${capital(rail.name)}: ${volts(voltage.value)}`,
        number: current === undefined ? '' : `up to ${amps(current)}`,
        flows: current,
      },
      ...on
        .sort((a, b) => b.work.value.max - a.work.value.max)
        .map((c): Line => ({
          depth: depth + 1,
          kind: 'load',
          text: c.name,
          number: `up to ${amps(c.work.value.max)}`,
          flows: c.work.value.max,
        })),
    ]
  })
  if (lines.length === 0) return null
  return (
    <Picture
      project={design.name}
      title="From plug to load"
      file="power"
      width={width}
      height={lines.length * row + 24}
    >
      {lines.map(({ depth, kind, text, number, flows }, i): ReactNode => {
        const x = 20 + depth * indent
        const y = 12 + i * row
        const strong = kind === 'rail' || kind === 'source'
        return (
          <g key={i}>
            {kind === 'through' && (
              <path d={`M${x - indent + 6} ${y - 4} v8 h${indent - 12}`} fill="none" stroke={ink} />
            )}
            <text x={x} y={y + 13} fontWeight={strong ? 650 : 400} fill={kind === 'through' ? pencil : ink}>
              {fit(text, 62)}
            </text>
            {flows !== undefined && (
              <rect
                x={width - 200}
                y={y + row / 2 - Math.max(0.5, (flows / most) * 7)}
                width={60}
                height={Math.max(1, (flows / most) * 14)}
                fill={strong ? ink : '#a9a294'}
              />
            )}
            {number && (
              <text x={width - 20} y={y + 13} textAnchor="end" fontWeight={strong ? 650 : 400} fill={ink}>
                {number}
              </text>
            )}
          </g>
        )
      })}
    </Picture>
  )
}
