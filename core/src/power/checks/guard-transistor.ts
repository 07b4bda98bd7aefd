import { type Check, type Fact, type Found, partOrigin, type Said, say, type Severity } from '../../findings'
import { siliconJunction } from '../../parts'
import { capital, celsiusWords, formatQuantity, fullRange } from '../../quantity'
import { asVariable, junctionOf, sum } from '../../sums'
import { leadResistances, type NoGuard, noGuard } from '../../supply'
import { guardsFor } from './ways-out'

const id = (what: string) => `power.guard-transistor:${what}`
const undone = {
  label: 'Do without it',
  edits: [{ kind: 'chooseGuard' as const, part: null, name: '' }],
}
const because: Record<NoGuard, string> = {
  'no source': 'no source is chosen',
  board: 'a board has its own plug',
  latch: 'the transistor of the latch lies in the plus already, its source towards the cells',
  unknown: 'it is not in the library',
  'other sort': 'only a p-channel MOSFET can lie in the plus so',
}

/** A transistor in the plus against a source the wrong way round: whether it is on, stands what it has to, and how warm it gets. */
export const guardTransistor: Check = {
  id: 'power.guard-transistor',
  stage: 'power',
  looksFor:
    'a transistor against a source the wrong way round that isn’t turned on by that source, breaks of its voltage, or gets too hot',
  rule: 'threshold, channel, gate voltage, voltage and current of its sheet, with all of the source’s voltage at its gate; its heat at the project’s ambient',
  run: (stages) => {
    const {
      design,
      library,
      power: { supplies, through },
    } = stages
    const why = noGuard(design, library)
    if (why)
      return [
        {
          id: id('not there'),
          severity: 'notes',
          ...say`A transistor against a source the wrong way round is chosen (${design.power.guard!}) and left out of every sum: ${because[why]}.`,
          because: [say`It would lie in the plus, between the source and all else`],
          fixes: [undone],
        },
      ]
    const plugged = supplies.sources.find((s) => s.id === 'source')
    const guard = plugged?.lead?.guard
    if (!plugged || !guard) return []
    const { part: source } = plugged
    const V = fullRange(source.voltage)
    const found: Found[] = []
    const tell = (what: string, severity: Severity, text: Said, facts: Fact[]) =>
      found.push({
        id: id(what),
        severity,
        grade: 'outside the sheet',
        ...text,
        because: facts,
        fixes: [
          ...guardsFor(stages)
            .filter((t) => t.id !== guard.id)
            .slice(0, 2)
            .map(({ id: part, name }) => ({
              label: `${capital(name)} in its place`,
              edits: [{ kind: 'chooseGuard' as const, part, name }],
            })),
          undone,
        ],
      })
    const has: Fact = {
      ...say`${source.sheet}: ${formatQuantity(V.min, 'V', 3)} to ${formatQuantity(V.max, 'V', 3)}`,
      origin: partOrigin(source, 'voltage', source.voltage),
    }
    const fact = (what: string, field: string, of: Parameters<typeof partOrigin>[2]): Fact => ({
      ...say`${guard.sheet}: ${what}`,
      origin: partOrigin(guard, field, of),
    })
    const name = capital(guard.name)
    const gate = guard.gateVoltage && fullRange(guard.gateVoltage).max
    if (gate === undefined)
      tell(
        'gate unknown',
        'notes',
        say`The sheet of ${guard.name} doesn’t say what its gate stands, and it has all of the source’s ${formatQuantity(V.max, 'V', 3)}.`,
        [has],
      )
    else if (V.max > gate)
      tell(
        'gate',
        'stops',
        say`${name} has all of the source’s ${formatQuantity(V.max, 'V', 3)} at its gate, which stands ${formatQuantity(gate, 'V', 3)}: it breaks through.`,
        [has, fact(`${formatQuantity(gate, 'V', 3)} at the gate`, 'gateVoltage', guard.gateVoltage)],
      )
    const stands = fullRange(guard.voltage).max
    if (V.max > stands)
      tell(
        'voltage',
        'stops',
        say`The wrong way round ${source.name} puts ${formatQuantity(V.max, 'V', 3)} across ${guard.name}, which stands ${formatQuantity(stands, 'V', 3)}.`,
        [has, fact(formatQuantity(stands, 'V', 3), 'voltage', guard.voltage)],
      )
    const begins = guard.threshold && fullRange(guard.threshold).max
    const stated = (guard.channel ?? []).map((c) => c.gate)
    const from = Math.min(...stated)
    if (begins !== undefined && V.min < begins)
      tell(
        'off',
        'stops',
        say`${capital(source.name)} may have as little as ${formatQuantity(V.min, 'V', 3)}, and ${guard.name} may need ${formatQuantity(begins, 'V', 3)} to begin to conduct: the current goes through its inner diode, and it gets hot.`,
        [has, fact('threshold', 'threshold', guard.threshold)],
      )
    else if (stated.length === 0)
      tell(
        'channel unknown',
        'notes',
        say`The sheet of ${guard.name} states no resistance of its channel: what falls in it, and how hot it gets, is not counted.`,
        [has],
      )
    else if (V.min < from)
      tell(
        'weak',
        'risks',
        say`${capital(source.name)} may have as little as ${formatQuantity(V.min, 'V', 3)}, and the sheet of ${guard.name} says what its channel is from ${formatQuantity(from, 'V', 3)} on.`,
        [has],
      )
    const rated = fullRange(guard.current).max
    if (through.value.max > rated)
      tell(
        'current',
        'stops',
        say`Up to ${formatQuantity(through.value.max, 'A', 3)} flow through ${guard.name}, which is made for ${formatQuantity(rated, 'A', 3)}.`,
        [
          { ...say`Through it flow up to ${formatQuantity(through.value.max, 'A', 3)}`, worked: through },
          fact(formatQuantity(rated, 'A', 3), 'current', guard.current),
        ],
      )
    const channel = leadResistances(plugged.lead!).guard
    const heat =
      channel &&
      sum(
        { label: `Heat in ${guard.name}`, symbol: 'P', unit: 'W', counts: 'max' },
        { I: asVariable(through), R_turn: asVariable(channel) },
        (i) => i.I.times(i.I).times(i.R_turn),
      )
    const junction = heat && junctionOf(`Junction of ${guard.name}`, guard, design.needs.limits.ambient, heat)
    if (junction && junction.value.max > siliconJunction)
      tell(
        'heat',
        'risks',
        say`${name} in the plus reaches ${celsiusWords(junction.value.max)}; its sheet states no limit, and ${siliconJunction} °C is what silicon is made for.`,
        [{ ...say`Its junction reaches ${celsiusWords(junction.value.max)}`, worked: junction }],
      )
    return found
  },
}
