import { fittedFor, stockOf } from '../circuit'
import { defineStage } from '../findings'
import { fullRange } from '../quantity'
import { latchParts, ledOnly, leadResistance, railOf } from '../supply'
import { latchChecks } from './checks'
import { planLatch } from './plan'
import { capacitorsOn, type LatchResult, resolveLatch, usualStray } from './resolve'
import { curvePoints, type LatchFacts, passFacts, regulatorModel } from './run'

export interface Latched {
  /** What switches the project’s supply; absent where nothing does. */
  latch?: LatchResult
  /** For its simulation. */
  facts?: LatchFacts
  /** What hangs on the source in front of the chip’s regulator: it is not in the simulation. */
  leftOut?: string[]
}

declare module '../findings/results' {
  interface Results {
    latch: Latched
  }
}

/** A leg’s driver where its sheet gives no drop, Ω. */
const usualDriver = 50

export const latchStage = defineStage({
  name: 'latch',
  after: ['build', 'carrier', 'pins', 'power'],
  run: ({ design, library, build, carrier: { chip }, pins, power }): Latched => {
    if (!chip || !latchParts(design, library)) return {}
    const plan = planLatch({ design, library, stock: stockOf(library) }, pins)
    const { support } = build
    const latch = plan && resolveLatch(plan, { design, power }, chip, support)
    if (!latch || !power.rail) return {}
    const sumOf = (nets: string[]) => capacitorsOn(support, nets).reduce((s, c) => s + c.value.typ, 0)
    const lead = power.supplies.sources.find((s) => s.id === 'source')?.lead
    const led = lead && ledOnly(lead)
    const ohms = (role: Parameters<typeof fittedFor>[1], signal: string | undefined, otherwise: number) =>
      (signal !== undefined && fittedFor(support, role, signal)?.value?.value) || otherwise
    const [drop] = chip.io.outputHigh
    const resistance =
      (latch.source.resistance ? fullRange(latch.source.resistance).typ : 0) +
      (led ? leadResistance(led).value.typ : 0)
    const { supplies } = power
    const at = supplies.fed.source
    return {
      latch,
      leftOut:
        at === supplies.own
          ? []
          : [
              ...power.consumers
                .filter((c) => c.from === at && design.needs.devices.some((d) => d.id === c.id.split('.')[0]))
                .map((c) => c.name),
              ...supplies.converters
                .filter((c) => c.from === at && c.to !== supplies.own)
                .map((c) => `the ${railOf(supplies, c.to).name}`),
            ],
      facts: {
        source: { voltage: fullRange(latch.source.voltage).typ, resistance: Math.max(resistance, 1e-3) },
        pass: passFacts(latch.pass),
        pull: passFacts(latch.pull ?? latch.pass),
        pullUp: latch.pullUp.value,
        stray: usualStray,
        ...(latch.readable && latch.diode && { diode: curvePoints(latch.diode) }),
        keyPullUp: ohms(
          'line pull-up',
          latch.key?.signal.id,
          chip.io.pullUp ? fullRange(chip.io.pullUp).typ : 50e3,
        ),
        gateResistor: ohms('gate resistor', latch.hold?.signal.id, 1),
        gatePullDown: ohms('gate pull-down', latch.hold?.signal.id, 1e9),
        driver: drop && drop.current > 0 ? fullRange(drop.drop).typ / drop.current : usualDriver,
        ...(power.polarity?.present && { polarity: curvePoints(power.polarity.diode) }),
        ...(power.regulator && { regulator: regulatorModel(power.regulator) }),
        input: sumOf(['VIN', 'VPLUG']),
        rail: sumOf(['VCC']),
        load: { current: power.loaded.value.typ, full: power.rail.value.min },
        least: fullRange(chip.supply.recommended).min,
        startUp: latch.startUp.value.max,
        setUp: latch.setUp.value.max,
      },
    }
  },
  checks: latchChecks,
})
