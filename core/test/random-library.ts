// A library of made-up carriers of any size for tests and benchmarks, from a seed: shipped chips with their functions
// dealt anew over their pins, units dropped, memory and price varied. Every one reads as a part file would.

import type { Chip, Library } from '../src/parts'
import { seeded } from './seeded'

export const randomLibrary = (shipped: Library, count: number, seed: number): Library => {
  const random = seeded(seed)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const models = Object.values(shipped.parts).filter((p): p is Chip => p.kind === 'chip')
  const others = Object.entries(shipped.parts).filter(([, p]) => p.kind !== 'chip' && p.kind !== 'board')
  const chips = Array.from({ length: count }, (_, n): Chip => {
    const model = models[int(0, models.length - 1)]!
    const dropped = new Set(model.units.filter(() => random() < 0.15).map((u) => u.id))
    const io = model.pins.filter((p) => p.type === 'io')
    const dealt = io.map((p) => p.functions)
    // Deals within windows of eight legs, so that functions stay near where a chip would have them.
    for (let i = 0; i < dealt.length; i++) {
      const j = Math.min(dealt.length - 1, i + int(0, 7))
      ;[dealt[i], dealt[j]] = [dealt[j], dealt[i]]
    }
    return {
      ...model,
      id: `made-up-${n}`,
      name: `Made-up ${n}`,
      price: Math.round(model.price * (50 + int(0, 100))) / 100,
      memory: { ...model.memory, program: model.memory.program * int(1, 2) },
      units: model.units.filter((u) => !dropped.has(u.id)),
      matrix: model.matrix?.map((m) => ({ ...m, units: m.units.filter((u) => !dropped.has(u)) })),
      pins: model.pins.map((pin) => {
        const at = io.indexOf(pin)
        return at < 0 ? pin : { ...pin, functions: dealt[at]?.filter((f) => !dropped.has(f.unit)) }
      }),
    }
  })
  return { parts: Object.fromEntries([...others, ...chips.map((c) => [c.id, c] as const)]) }
}
