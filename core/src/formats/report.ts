// The whole analysis as plain text, for the command line.

import { type Analysis, gaugeText, type Offers } from '../analysis'
import { stageNames } from '../design'
import { type Plan, placeName } from '../legs'

const planWords = (plan: Plan): string => {
  switch (plan.status) {
    case 'proven':
      return `no plan costs less than this one’s ${plan.cost} points`
    case 'found':
      return `the best found in the time given, ${plan.cost} points; one up to ${plan.gap} points cheaper may exist`
    case 'undecided':
      return 'not decided in the time given: none was found, and none is ruled out'
    case 'clash':
      return `none: ${plan.clashText}`
  }
}

/** `helps`: by finding, the fixes that were tried and clear it. */
export const textReport = (a: Analysis, helps?: ReadonlyMap<string, Offers>): string => {
  const out: string[] = [a.design.name, '='.repeat(a.design.name.length), '']
  const line = (text = '') => out.push(text)
  for (const gauge of a.gauges) {
    const w = gauge.worked
    line(`${gauge.label}: ${w ? gaugeText(gauge, w.value[gauge.corner]) : gauge.instead}`)
  }
  line()
  line(`Chip: ${a.chip.chip?.name ?? 'none chosen'}`)
  if (a.pins.plan) line(`Plan: ${planWords(a.pins.plan)}`)
  for (const wire of a.pins.plan?.wires ?? [])
    line(
      `  ${wire.signal.name}: ${placeName(wire.pin)} ${wire.pin.id}${wire.impossible ? ` (can't work: ${wire.impossible})` : ''}`,
    )
  line()
  line('Parts:')
  for (const row of a.build.parts)
    line(`  ${row.count} x ${row.name} ${row.value} ${row.refs.join(' ')}`.trimEnd())
  line()
  line('Findings:')
  for (const stage of stageNames)
    for (const f of a.findings.filter((x) => x.stage === stage)) {
      line(`  [${f.severity}] ${f.text}`)
      for (const fact of f.because) line(`      ${fact.text}`)
      const { offers = [], untried = [] } = helps?.get(f.id) ?? {}
      for (const { fix } of offers) line(`    helps: ${fix.label}`)
      for (const label of untried) line(`    not tried in the time given: ${label}`)
      if (f.longer) line('    looking longer may settle it')
    }
  if (a.findings.length === 0) line('  none')
  return `${out.join('\n')}\n`
}
