import { onceAWire } from './once'
import type { Wire } from '../legs/wires'

test('an answer is made once for a wire and its surroundings, and again where one of them is another', () => {
  const asked: unknown[] = []
  const answer = onceAWire((wire, rail: object, speed: number) => {
    asked.push([wire, rail, speed])
    return asked.length
  })
  const [one, two] = [{}, {}] as Wire[]
  const [rail, other] = [{ volts: 5 }, { volts: 5 }]
  expect([
    answer(one!, rail, 1),
    answer(one!, rail, 1),
    answer(one!, rail, 2),
    answer(one!, rail, 1),
  ]).toEqual([1, 1, 2, 1])
  // Alike is not the same: another rail may have another working.
  expect([answer(one!, other, 1), answer(two!, rail, 1), answer(two!, rail, 1)]).toEqual([3, 4, 4])
})
