import { type Check, type Fix, say } from '../../findings'
import { capital, formatQuantity } from '../../quantity'
import { legLoads, loadSums } from '../drive'

export const legTotal: Check = {
  id: 'pins.leg-total',
  stage: 'pins',
  looksFor: 'legs that together carry more than the chip or a group of its legs may',
  rule: 'the chip’s limits for all legs and for groups of legs',
  run: ({ chip: { chip }, pins }) =>
    (chip ? loadSums(chip, legLoads(chip, pins)) : [])
      .filter(({ sum, limit }) => sum.value.max > limit)
      .map(({ id, name, loads, sum, limit, rated, grade }) => {
        // Of an LED less can be asked; what a base takes is its load’s.
        const worst = loads
          .filter((l) => !l.onBoard && pins.leds[l.wire.signal.id])
          .sort((a, b) => b.current.value.max - a.current.value.max)[0]
        const end = worst?.wire.signal.ends[0]
        const share = worst ? (limit / sum.value.max) * pins.leds[worst.wire.signal.id]!.wanted * 0.9 : 0
        const based = loads.filter((l) => !l.onBoard && pins.bases[l.wire.signal.id])
        return {
          id: `pins.leg-total:${id}`,
          severity: 'risks' as const,
          grade,
          ...say`${capital(name)} carry up to ${formatQuantity(sum.value.max, 'A', 3)} together; ${formatQuantity(limit, 'A')} is the limit.`,
          because: [
            { ...say`Together they carry ${formatQuantity(sum.value.max, 'A', 3)}`, worked: sum },
            ...loads.flatMap((l) =>
              l.onBoard
                ? [
                    {
                      ...say`Among them ${l.onBoard} of ${chip!.board!.name} on ${l.wire.pin.id}: ${formatQuantity(l.current.value.max, 'A')}`,
                      worked: l.current,
                    },
                  ]
                : [],
            ),
            ...based.map((l) => ({
              ...say`Among them the base that ${l.wire.signal.name} drives: ${formatQuantity(l.current.value.max, 'A', 3)}`,
              worked: l.current,
            })),
            say`${chip!.sheet}, ${rated.source ?? 'limits'}: ${formatQuantity(limit, 'A')}`,
          ],
          fixes: [
            ...based.flatMap(({ wire }): Fix[] => {
              const [{ instance, signal }] = wire.signal.ends as [(typeof wire.signal.ends)[number]]
              return [
                {
                  label: `Switch ${instance.need.name} with what its file proposes`,
                  edits: [
                    { kind: 'setTransistor', id: instance.need.id, signal: signal.id, part: null, name: '' },
                  ],
                },
              ]
            }),
            ...(end
              ? [
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
                ]
              : []),
          ],
        }
      }),
}
