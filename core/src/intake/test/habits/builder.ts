// What a builder with the sheet in hand answers: from what is true of the chip, never from what was read.

import type { Question } from '../..'
import type { HabitTable } from '.'

export const answerOf = (table: HabitTable, question: Question): string => {
  const [kind, of] = [question.id.split(':')[0]!, question.id.slice(question.id.indexOf(':') + 1)]
  const has = (id: string) => question.choices.some((c) => c.id === id)
  if (kind === 'kind') {
    const unit = table.chip.units.find(([id]) => id.replace(/\d+$/, '') === of || id === of)
    return unit?.[1] ?? (has('none') ? 'none' : 'other')
  }
  if (kind === 'package') return '0'
  if (kind === 'select')
    return table.expected.some((l) => l.functions.some((f) => f.includes('@'))) ? 'zero' : 'none'
  if (kind === 'leg')
    return table.chip.legs.find((l) => l.legs.includes(Number(of)))?.name ?? question.guess ?? ''
  if (kind === 'missing') return table.chip.legs.find((l) => l.legs.includes(Number(of)))?.name ?? 'NC'
  if (kind === 'twice') {
    const leg = table.chip.legs.find((l) => l.name.toUpperCase() === of)
    return leg?.legs.length === 1 ? String(leg.legs[0]) : 'all'
  }
  if (kind === 'row')
    return table.chip.legs.some((l) => question.text.includes(` ${l.name.toUpperCase()},`))
      ? 'leg'
      : 'nothing'
  if (kind === 'word') {
    const f = table.chip.legs
      .flatMap((l) => l.functions)
      .find((x) => x.text.toUpperCase() === of.toUpperCase())
    return (f && table.chip.units.find(([id]) => id === f.is.split('.')[0])?.[1]) ?? 'nothing'
  }
  // How it is laid out he sees, and takes what has most of his legs.
  if (kind === 'reading')
    return (
      [...question.choices].sort(
        (a, b) => Math.abs(legsOf(a.label) - table.chip.count) - Math.abs(legsOf(b.label) - table.chip.count),
      )[0]?.id ?? ''
    )
  return question.guess ?? ''
}
const legsOf = (label: string) => Number(/(\d+) names/.exec(label)?.[1] ?? 0)
