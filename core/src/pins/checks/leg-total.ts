import { type Check, fromWorked, type Worked } from '../../findings'
import { add, formatQuantity, fullRange } from '../../quantity'
import { ledKey } from '../support'

export const legTotal: Check = {
  id: 'pins.leg-total',
  stage: 'pins',
  looksFor: 'legs that together carry more than the chip or a group of its legs may',
  rule: 'the chip’s limits for all legs and for groups of legs',
  run: ({ chip: { chip }, pins }) => {
    if (!chip || !pins.plan) return []
    const loads = pins.plan.wires.flatMap((w) => {
      const on = pins.leds[w.signal.id]
      if (!on) return []
      const fitted = pins.support.find((s) => s.key === ledKey(w.signal.id))?.present
      return [{ wire: w, current: fitted ? on.current : on.bare }]
    })
    const limits = [
      {
        id: 'all',
        name: 'all legs',
        pins: undefined,
        limit: fullRange(chip.limits.total).max,
        source: chip.limits.total.source,
      },
      ...(chip.limits.groups ?? []).flatMap((g) =>
        g.recommended
          ? [
              {
                id: g.id,
                name: g.name,
                pins: g.pins,
                limit: fullRange(g.recommended).max,
                source: g.recommended.source,
              },
            ]
          : [],
      ),
    ]
    return limits.flatMap(({ id, name, pins: of, limit, source }) => {
      const here = loads.filter((l) => !of || of.includes(l.wire.pin.id))
      const sum: Worked = {
        label: `Current of ${name}`,
        symbol: 'ΣI',
        value: add(...here.map((l) => l.current.value)),
        unit: 'A',
        formula: here.map((_, i) => `I_${i + 1}`).join(' + ') || '0',
        inputs: here.map((l, i) => ({ ...fromWorked(l.current), symbol: `I_${i + 1}` })),
      }
      if (sum.value.max <= limit) return []
      const worst = here.reduce((a, b) => (a.current.value.max >= b.current.value.max ? a : b))
      const end = worst.wire.signal.ends[0]!
      const share = (limit / sum.value.max) * pins.leds[worst.wire.signal.id]!.wanted * 0.9
      return [
        {
          id: `pins.leg-total:${id}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          text: `${name} carry up to ${formatQuantity(sum.value.max, 'A', 3)} together; ${formatQuantity(limit, 'A')} is the limit.`,
          because: [
            { text: `Together they carry ${formatQuantity(sum.value.max, 'A', 3)}`, worked: sum },
            { text: `${chip.sheet}, ${source ?? 'limits'}: ${formatQuantity(limit, 'A')}` },
          ],
          fixes: [
            {
              label: `Ask for ${formatQuantity(share, 'A', 2)} for ${end.instance.need.name}`,
              edits: [
                {
                  kind: 'setSetting' as const,
                  id: end.instance.need.id,
                  setting: `${end.signal.id}.current`,
                  value: Number(share.toPrecision(2)),
                },
              ],
            },
          ],
        },
      ]
    })
  },
}
