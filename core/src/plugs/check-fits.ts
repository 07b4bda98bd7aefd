// Whether each plug goes into its jack, the right way round, and what one of the other polarity would do.

import { preferred, stockOf } from '../circuit'
import { type Check, type Fix, partOrigin, say, type Said, type Found } from '../findings'
import { otherSources } from '../power'
import { byHollowPlug, type Source } from '../parts'
import { capital, formatQuantity, fullRange, namesInWords, within } from '../quantity'
import { jackOf, misfit, railFor, reversed } from '../supply'

export const plugFits: Check = {
  id: 'power.plug-fits',
  stage: 'power',
  looksFor:
    'a plug that doesn’t go into its jack, or feeds it the wrong way round, and what guards against that',
  rule: 'both diameters and the polarity, as plug and jack are sold; less than 0.2 mm apart is the same size',
  run: (stages) => {
    const { needs, library, chip, power, charging: planned } = stages
    const { supplies } = power
    const { charging } = planned
    const found: Found[] = []
    const tell = (
      of: string,
      what: string,
      severity: Found['severity'],
      grade: Found['grade'],
      said: Said,
      because: Found['because'],
      fixes: Fix[] = [],
    ) => found.push({ id: `power.plug-fits:${what}:${of}`, severity, grade, ...said, because, fixes })
    const plugOf = (s: Source) => ({ ...say`${s.plug}, ${s.polarity}`, origin: partOrigin(s, 'plug') })
    const waitsFor = (s: Source) => ({
      ...say`${s.sheet}: it waits for ${formatQuantity(fullRange(s.waits!).typ, 'Ω')}`,
      origin: partOrigin(s, 'waits', s.waits),
    })
    const board = chip.chip?.board
    const source = supplies.sources.find((s) => s.id === 'source')?.part
    if (board && source && byHollowPlug(source)) {
      const { jack } = board
      if (!jack)
        tell(
          'source',
          'no-jack',
          'notes',
          undefined,
          say`${capital(board.name)} has no jack for a hollow plug, as far as its file says: the plug of ${source.name} needs one in its lead, from where plus and minus go to the board’s input.`,
          [say`${board.sheet} names none`, plugOf(source)],
        )
      else {
        const size = (m: number) => formatQuantity(m, 'm', 2)
        const theirs = {
          ...say`the board’s jack takes ${size(jack.outer)}, on a pin of ${size(jack.pin)}, ${jack.polarity}`,
          origin: partOrigin(board, 'jack', { source: jack.source }),
        }
        const gives = supplies.open[supplies.fed.source]
        const other = reversed(source, jack)
        if (other)
          tell(
            'source',
            'reversed',
            'stops',
            'outside the sheet',
            say`${source.name} feeds ${board.name} the wrong way round: ${other}. That puts −${formatQuantity(fullRange(source.voltage).max, 'V', 2)} on its input.`,
            [
              plugOf(source),
              theirs,
              ...(gives
                ? [{ ...say`It gives up to ${formatQuantity(gives.value.max, 'V', 2)}`, worked: gives }]
                : []),
            ],
            otherSources(stages, 2),
          )
        const wrong = source.barrel && misfit(source.barrel, jack)
        if (wrong)
          tell(
            'source',
            wrong.how,
            wrong.how === 'shut' ? 'stops' : 'risks',
            wrong.how === 'shut' ? 'impossible' : 'typical',
            say`${source.name} and ${board.name}: ${wrong.says}.`,
            [plugOf(source), theirs],
            otherSources(stages, 2),
          )
        if (!source.barrel)
          tell(
            'source',
            'unknown',
            'notes',
            undefined,
            say`Whether the plug of ${source.name} goes into the jack of ${board.name} isn’t known: no sheet gives its diameters.`,
            [plugOf(source), theirs],
          )
      }
    }
    if (board && source?.waits)
      tell(
        'source',
        'waits',
        'notes',
        'typical',
        say`${source.name} gives nothing until it finds ${formatQuantity(fullRange(source.waits).typ, 'Ω')} at each of two contacts of its plug; whether the jack of ${board.name} has these, its sheet doesn’t say. With an older plug at its other end a cable asks by itself.`,
        [waitsFor(source), say`${board.sheet} names none`],
      )
    const jacks = [
      ...(board || !source ? [] : [{ of: 'source', part: source }]),
      ...supplies.sources.filter((s) => s.id === 'feed').map(({ part }) => ({ of: 'feed', part })),
      ...(charging?.from ? [{ of: 'charging', part: charging.from }] : []),
    ].filter(({ part }) => part.sort !== 'cells')
    for (const { of, part } of jacks) {
      const jack = jackOf(library, part)
      if (!jack)
        tell(
          of,
          'none',
          'stops',
          'impossible',
          say`The library has no jack for the plug of ${part.name}: nothing brings it onto the board.`,
          [plugOf(part)],
          of === 'source' ? otherSources(stages, 2) : [],
        )
      // A drawer whose nearest value, or its tolerance, lies beside what the source takes for an answer.
      if (part.waits && jack && !jack.asks) {
        const { resistors } = stockOf(library)
        const taken = fullRange(part.waits)
        const near =
          resistors && within(preferred(resistors, taken.typ, 'nearest').value, resistors.tolerance)
        if (!near || near.min < taken.min || near.max > taken.max)
          tell(
            of,
            'asking',
            'risks',
            'outside the sheet',
            say`${part.name} takes ${formatQuantity(taken.min, 'Ω', 3)} to ${formatQuantity(taken.max, 'Ω', 3)} for an answer, and ${near ? say`the nearest resistor of the library is ${formatQuantity(near.min, 'Ω', 3)} to ${formatQuantity(near.max, 'Ω', 3)}` : say`there are no resistors in the library`}: it may give nothing.`,
            [waitsFor(part)],
          )
      }
      if (!byHollowPlug(part)) continue
      // A diode that could be fitted, and was left out, is told of where it is left out.
      const stopped = of === 'source' && supplies.sources.some((s) => s.id === of && s.lead?.guard)
      if (stopped || (of === 'source' && power.polarity)) continue
      const { to } = of === 'charging' ? { to: undefined } : supplies.sources.find((s) => s.id === of)!
      const hit =
        of === 'charging'
          ? [charging!.charger.name]
          : [
              ...(chip.chip && to === supplies.own ? [chip.chip.name] : []),
              ...new Set(
                needs.instances.flatMap((i) =>
                  i.part.supply && !i.hung && railFor(supplies, i.need).id === to ? [i.need.name] : [],
                ),
              ),
              ...supplies.converters.flatMap((c) => (c.from === to ? [c.part.name] : [])),
            ]
      if (hit.length === 0) continue
      const volts = formatQuantity(fullRange(part.voltage).max, 'V', 2)
      tell(
        of,
        'unguarded',
        'notes',
        'outside the sheet',
        say`Another plug that fits the jack of ${part.name} may be the other way round: that puts −${volts} on ${namesInWords(hit)}, and nothing stops it. Mark the jack “${formatQuantity(fullRange(part.voltage).typ, 'V', 2)}, ${part.polarity}”, and measure before it is joined.`,
        [
          say`${part.name} is ${part.polarity}; others with the same plug are not`,
          of === 'source'
            ? say`A diode would take its voltage from the rail, and there is no regulator that makes up for it`
            : say`No diode is planned there`,
        ],
      )
    }
    return found
  },
}
