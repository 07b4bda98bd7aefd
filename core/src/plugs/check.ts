// What does harm of all that can flow back.

import { type Check, type Fix, say, type Said, unsaid, type Found } from '../findings'
import { partsOfKind } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { railFor, type RailId, railOf } from '../supply'
import type { PlugsResult, Way } from './result'
import { safeInDiode } from '../levels'
import { safeResistor } from './ways'

const id = (what: string) => `power.back-feed:${what}`

/** “With USB port in, and programmer unplugged”. */
const standingWords = ({ plugs, standings }: PlugsResult, { standings: ids }: Way): Said => {
  const standing = standings.find((s) => s.id === ids[0])!
  const names = (there: boolean, cells?: boolean) =>
    plugs
      .filter((p) => standing.in.includes(p.id) === there && (cells === undefined || !!p.cells === cells))
      .map((p) => p.name)
      .join(' and ')
  const out = [
    [names(false, false), 'unplugged'],
    [names(false, true), 'taken out'],
  ]
    .filter(([which]) => which)
    .map((words) => words.join(' '))
  return say`With ${names(true)} in${standing.off ? ', switched off' : ''}${out.length > 0 ? `, and ${out.join(' and ')}` : ''}`
}

export const backFeed: Check = {
  id: 'power.back-feed',
  stage: 'power',
  looksFor: 'current that flows back into what is not plugged in, or into another supply',
  rule: 'every combination of plugs; diodes in regulators, MOSFETs and inputs; 1 mA into an input’s diode where no sheet says more',
  run: ({ design, library, chip, needs, plugs: result, power }) => {
    const found: Found[] = []
    const live = result.ways.filter((w) => !w.stopped)
    for (const direction of ['out', 'in'] as const) {
      const rails = new Set(live.filter((w) => w.kind === direction).map((w) => w.line!.rail))
      for (const rail of rails) {
        const lines = live
          .filter((w) => w.kind === direction && w.line!.rail === rail)
          .sort((a, b) => b.current!.value.max - a.current!.value.max)
        const [worst] = lines
        const most = worst!.current!
        const devices = [...new Set(lines.flatMap((w) => w.line!.devices))].join(', ')
        const there = needs.instances.filter((i) => !i.hung && railFor(power.supplies, i.need).id === rail)
        const fixes = [...new Set(there.map((i) => i.need))].map((need): Fix => ({
          label: `Feed ${need.name} from the rail`,
          edits: [{ kind: 'setFedBy', id: need.id, by: 'rail' }],
        }))
        const bare = lines.filter((w) => !w.line!.shifted && w.current!.value.max > safeInDiode)
        if (bare.length > 0)
          fixes.unshift({
            label:
              bare.length === 1 ? 'A resistor in the line' : `A resistor in each of the ${bare.length} lines`,
            edits: bare.map((w) => ({
              kind: 'fitShift',
              signal: w.line!.id,
              name: w.line!.signal,
              shift: 'resistor',
            })),
          })
        const where = standingWords(result, worst!)
        const amperes = formatQuantity(most.value.max, 'A', 2)
        const harms = most.value.max > safeInDiode
        found.push({
          id: id(`${direction}:${rail}`),
          severity: harms ? 'risks' : 'notes',
          grade: 'typical',
          ...(direction === 'out'
            ? say`${where}, the chip feeds ${devices} through ${lines.length === 1 ? 'its leg' : `${lines.length} legs`}: up to ${amperes} into ${worst!.line!.signal}${harms ? `, and ${formatQuantity(safeInDiode, 'A')} is safe for an input’s diode` : ''}. What is half fed may hang, or not start.`
            : say`${where}, ${devices} feed the chip through ${lines.length === 1 ? 'its leg' : `${lines.length} legs`}: up to ${amperes} into ${worst!.line!.signal}${harms ? `, and ${formatQuantity(safeInDiode, 'A')} is safe for a leg’s diode` : ''}. A chip that is half fed may hang, and no reset frees it.`),
          because: [
            ...[...new Set(lines.flatMap((w) => w.standings))].slice(0, 3).map((s) => {
              const standing = result.standings.find((x) => x.id === s)!
              const on = standing.fed.map((r) => railOf(power.supplies, r).name)
              return say`${standingWords(result, { ...worst!, standings: [s] })}: fed is only the ${on.join(' and the ')}`
            }),
            { ...say`Up to ${amperes}, ${worst!.words}`, worked: most },
            ...(harms
              ? [
                  say`A resistor of ${formatQuantity(safeResistor(worst!.feeds!.value), 'Ω', 2)} or more in the line keeps it below ${formatQuantity(safeInDiode, 'A')}; or the program makes the line low first`,
                ]
              : []),
          ],
          fixes,
        })
      }
    }
    const { source } = power
    const joined = live.find((w) => w.id === 'joined')
    if (joined && source?.sort === 'cells') {
      const { regulator } = power
      const most = formatQuantity(joined.feeds!.value.max, 'V', 2)
      const through = regulator ? say` backwards through ${regulator.name}` : unsaid
      found.push({
        id: id('cells'),
        severity: 'risks',
        grade: 'typical',
        ...say`A programmer may feed the rail with up to ${most}, and drive current${through} into ${source.name}${
          source.rechargeable
            ? source.cautions?.includes('lithium')
              ? ', where nothing watches it: an overcharged lithium cell catches fire'
              : ', where nothing limits it'
            : ', which is not made to be charged: it may leak or burst'
        }. Take the cells out first, or leave the header’s supply contact open.`,
        because: [
          say`${standingWords(result, joined)}, both lie on one rail`,
          { ...say`${most} at the most`, worked: joined.feeds! },
          regulator
            ? say`${regulator.sheet} doesn’t say that it blocks: its transistor has a diode from output to input`
            : say`The higher of two voltages drives current into the lower, limited by what is inside both alone`,
        ],
        fixes: regulator
          ? partsOfKind(library, 'regulator')
              .filter(
                (r) =>
                  r.backwards === 'blocks' && fullRange(r.output).typ === fullRange(regulator.output).typ,
              )
              .slice(0, 2)
              .map((r): Fix => ({
                label: `Regulate with ${r.name}`,
                edits: [{ kind: 'chooseRegulator', part: r.id, name: r.name }],
              }))
          : [],
      })
    } else if (joined && source)
      found.push({
        id: id('joined'),
        severity: 'notes',
        grade: 'typical',
        ...say`${standingWords(result, joined)}, both feed the rail: the programmer with up to ${formatQuantity(joined.feeds!.value.max, 'V', 2)}, and the higher of the two drives current into the other. Unplug ${source.name} first, or leave the header’s supply contact open.`,
        because: [
          {
            ...say`Up to ${formatQuantity(joined.feeds!.value.max, 'V', 2)} from the programmer`,
            worked: joined.feeds!,
          },
          say`Nothing lies between ${source.name} and the rail`,
        ],
        fixes: [],
      })
    for (const way of live.filter((w) => w.kind === 'converter')) {
      const converter = power.supplies.converters.find((c) => way.id === `converter:${c.id}`)!
      // What else hangs on its input, be it behind another regulator.
      const reached = (rail: RailId): RailId[] => [
        rail,
        ...power.supplies.converters.flatMap((c) =>
          c !== converter && c.from === rail ? reached(c.to) : [],
        ),
      ]
      const there = reached(converter.from)
      const fed = power.consumers.filter(
        (c) => there.includes(c.from) && design.needs.devices.some((d) => d.id === c.id),
      )
      if (fed.length === 0) continue
      const V = way.voltage!
      found.push({
        id: id(way.id),
        severity: 'notes',
        grade: 'typical',
        ...say`${standingWords(result, way)}, ${fed.map((c) => c.name).join(', ')} ${fed.length === 1 && fed[0]!.count === 1 ? 'gets' : 'get'} up to ${formatQuantity(V.value.max, 'V', 2)} backwards through ${converter.part.name}: half fed, and out of what feeds the rail then.`,
        because: [
          say`${converter.part.sheet} doesn’t say that it blocks: its transistor has a diode from output to input`,
          { ...say`That leaves ${formatQuantity(V.value.max, 'V', 2)}`, worked: V },
        ],
        fixes: fed.map((c): Fix => ({
          label: `Feed ${c.name} from the rail`,
          edits: [{ kind: 'setFedBy', id: c.id, by: 'rail' }],
        })),
      })
    }
    const usb = live.find((w) => w.kind === 'usb')
    if (usb && source)
      found.push({
        id: id('usb'),
        severity: 'risks',
        grade: 'typical',
        ...say`${standingWords(result, usb)}, nothing keeps them apart: the higher of the two drives current into the other, be it a computer’s port or ${source.name}. Unplug ${source.name} before the USB plug goes in.`,
        because: [
          say`${chip.chip!.board!.sheet}: its USB plug feeds the ${chip.chip!.board!.usb!.feeds}, and nothing on it blocks`,
        ],
        fixes: [],
      })
    const bare = live.find((w) => w.kind === 'no cell')
    if (bare && source)
      found.push({
        id: id('no-cell'),
        severity: 'notes',
        grade: 'typical',
        ...say`${standingWords(result, bare)}, the project hangs on the charger alone: without a cell its output jumps between full and nothing. Put the cell in first.`,
        because: [say`A charger watches what flows into a cell, and there is none`],
        fixes: [],
      })
    return found
  },
}
