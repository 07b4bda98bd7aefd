// Whether the cell may be charged so at all: what a lithium cell is not made for ends in fire.

import { sourceOf } from '../../design'
import { type Check, type Fix, partOrigin, say, type Found, unsaid } from '../../findings'
import { findPart, partsOfKind } from '../../parts'
import { capital, formatQuantity, fullRange } from '../../quantity'

const id = (what: string) => `power.charging-safe:${what}`

export const noCharger: Fix = {
  label: 'Don’t charge it on the board',
  edits: [{ kind: 'changeCharging', change: { charger: undefined }, what: 'not on the board' }],
}
export const computed: Fix = {
  label: 'The current that all of them stand',
  edits: [{ kind: 'changeCharging', change: { current: undefined }, what: 'current as computed' }],
}

export const chargingSafe: Check = {
  id: 'power.charging-safe',
  stage: 'power',
  looksFor: 'a charger for a cell that is not made to be charged so',
  rule: 'rechargeable; voltage, current and warmth against the sheet of the cell, each at its worst',
  run: ({ design, library, charging: { charging } }) => {
    const chosen = design.power.charging
    if (!chosen) return []
    const cell = sourceOf(design, library)
    if (!charging) {
      const charger = findPart(library, 'charger', chosen.charger)
      const board = findPart(library, 'board', design.chip.part)
      return [
        {
          id: id('nothing'),
          severity: 'stops',
          grade: 'impossible',
          ...(!charger
            ? say`The charger is “${chosen.charger}”, which is not in the library: it is left out of every sum.`
            : board
              ? say`${charger.name} can’t be put in front of ${board.name}: it is left out of every sum.`
              : !cell
                ? say`${charger.name} charges nothing: no source is chosen.`
                : cell.sort !== 'cells'
                  ? say`${charger.name} charges nothing: ${cell.name} is no cell.`
                  : say`The library has no resistors, and one sets the current of ${charger.name}: it is left out of every sum.`),
          because: [say`A charger brings the cell of the project up to its voltage`],
          fixes: [noCharger],
        },
      ]
    }
    const { charger, voltage, current } = charging
    const stands = cell!.charging
    if (!cell!.rechargeable || !stands)
      return [
        {
          id: id('primary'),
          severity: 'stops',
          grade: 'outside the sheet',
          ...(cell!.rechargeable
            ? say`${charger.name} charges ${cell!.name}, whose sheet doesn’t say to which voltage and with which current: a cell that is overcharged catches fire.`
            : say`${charger.name} charges ${cell!.name}, which is not made to be charged: it leaks, bursts or burns.`),
          because: [say`${cell!.sheet} gives nothing for charging`],
          fixes: [noCharger],
        },
      ]
    const most = fullRange(stands.voltage).max
    const least = fullRange(stands.voltage).min
    const amperes = fullRange(stands.current).max
    const warmest = fullRange(stands.temperature).max
    const others = partsOfKind(library, 'charger')
      .filter(
        (c) => c.id !== charger.id && fullRange(c.voltage).max <= most && fullRange(c.voltage).max >= least,
      )
      .slice(0, 3)
      .map((c): Fix => ({
        label: `Charge it with ${c.name}`,
        edits: [{ kind: 'changeCharging', change: { charger: c.id }, what: c.name }],
      }))
    const found: Found[] = []
    if (voltage.value.max > most)
      found.push({
        id: id('voltage'),
        severity: 'stops',
        grade: 'outside the sheet',
        ...say`${charger.name} brings the cell to up to ${formatQuantity(voltage.value.max, 'V', 3)}, and ${cell!.name} stands ${formatQuantity(most, 'V', 3)}: an overcharged cell catches fire.`,
        because: [
          { ...say`${charger.sheet}: up to ${formatQuantity(voltage.value.max, 'V', 3)}`, worked: voltage },
          {
            ...say`${cell!.sheet}: ${formatQuantity(most, 'V', 3)} at the most`,
            origin: partOrigin(cell!, 'charging.voltage', stands.voltage),
          },
        ],
        fixes: [...others, noCharger],
      })
    else if (voltage.value.max < least)
      found.push({
        id: id('never-full'),
        severity: 'notes',
        ...say`${charger.name} stops at ${formatQuantity(voltage.value.max, 'V', 3)}: ${cell!.name} is full at ${formatQuantity(least, 'V', 3)}, and never gets there.`,
        because: [
          { ...say`${charger.sheet}: up to ${formatQuantity(voltage.value.max, 'V', 3)}`, worked: voltage },
        ],
        fixes: others,
      })
    if (current.value.max > amperes)
      found.push({
        id: id('current'),
        severity: current.value.typ > amperes ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`Up to ${formatQuantity(current.value.max, 'A', 3)} go into ${cell!.name}, which may be charged with ${formatQuantity(amperes, 'A', 3)}: it gets hot, and ages fast.`,
        because: [
          {
            ...say`${charger.name} gives up to ${formatQuantity(current.value.max, 'A', 3)}`,
            worked: current,
          },
          {
            ...say`${cell!.sheet}: ${formatQuantity(amperes, 'A', 3)}`,
            origin: partOrigin(cell!, 'charging.current', stands.current),
          },
        ],
        fixes: [computed],
      })
    const { ambient, coldest } = design.needs.limits
    const cold = stands.temperature.min
    const lithium = cell!.cautions?.includes('lithium')
    const inTheCold = {
      ...(cold === undefined
        ? say`${cell!.sheet} says how warm it may be, and not how cold`
        : say`${cell!.sheet}: from ${formatQuantity(cold, '°C')} on while it is charged`),
      origin: partOrigin(cell!, 'charging.temperature', stands.temperature),
    }
    if (cold === undefined)
      found.push({
        id: id('how cold'),
        severity: 'notes',
        ...say`From how cold on ${cell!.name} may be charged its sheet doesn’t say${lithium ? say`; lithium cells are ruined, and a danger, when they are charged in frost` : unsaid}.`,
        because: [inTheCold],
        fixes: [],
      })
    else if (coldest === undefined)
      found.push({
        id: id('how cold'),
        severity: 'notes',
        ...say`${capital(cell!.name)} may be charged in air of ${formatQuantity(cold, '°C')} and more, and nobody has said how cold it gets around the project.`,
        because: [inTheCold, say`The coldest air is set on the Needs page`],
        fixes: [
          {
            label: `It gets no colder than ${formatQuantity(cold, '°C')}`,
            edits: [{ kind: 'setLimit', limit: 'coldest', value: cold }],
          },
        ],
      })
    else if (coldest < cold)
      found.push({
        id: id('cold'),
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`Around the project it gets down to ${formatQuantity(coldest, '°C')}, and ${cell!.name} may be charged from ${formatQuantity(cold, '°C')} on${lithium ? say`: charged colder, metal grows inside a lithium cell, and it may short and burn later, when nothing is wrong with its voltage` : unsaid}.`,
        because: [inTheCold, say`Nothing on the board feels how cold the cell is`],
        fixes: [noCharger],
      })
    if (ambient > warmest)
      found.push({
        id: id('warm'),
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`Around the project it gets ${formatQuantity(ambient, '°C')}, and ${cell!.name} may be charged up to ${formatQuantity(warmest, '°C')}.`,
        because: [
          {
            ...say`${cell!.sheet}: up to ${formatQuantity(warmest, '°C')} while it is charged`,
            origin: partOrigin(cell!, 'charging.temperature', stands.temperature),
          },
          say`Nothing on the board feels how warm the cell is`,
        ],
        fixes: [noCharger],
      })
    return found
  },
}
