import { type Edit, busSpeedOf, busSpeeds } from '../../design'
import { type Check, type Fix, type Stages, say, type Found } from '../../findings'
import type { Instance } from '../../needs'
import { capital, formatQuantity } from '../../quantity'
import { nextBus } from './address-clash'

/** What the I2C-bus specification asks of each device: standard mode. */
const everyDevice = 100e3

const hertz = (speed: number) => formatQuantity(speed, 'Hz')
const named = (bus: number) => (bus > 1 ? `I2C bus ${bus}` : 'the I2C bus')

export const busSpeed: Check = {
  id: 'pins.bus-speed',
  stage: 'pins',
  looksFor: 'an I2C device that doesn’t keep up with its bus, or needs it faster',
  rule: 'speeds in the device’s part file; I2C-bus specification, table 10: each does 100 kHz',
  run: (stages) => {
    const onI2c = stages.needs.instances.filter((i) => i.wiring.signals.some((s) => s.bus === 'i2c'))
    // Several of one device say the same: one of them speaks for all.
    const devices = onI2c.filter((i) => onI2c.find((o) => o.need === i.need) === i)
    return devices.flatMap((i) => ofDevice(stages, i, devices))
  },
}

/** Speeds at which everyone of these works; a device that doesn’t say does 100 kHz. */
export const commonSpeeds = (devices: Instance[]): number[] =>
  busSpeeds.filter((speed) =>
    devices.every(({ wiring: { busSpeed: own } }) =>
      own ? speed <= (own.max ?? everyDevice) && speed >= (own.min ?? 0) : speed <= everyDevice,
    ),
  )

const ofDevice = (stages: Stages, device: Instance, all: Instance[]): Found[] => {
  const { need, part, wiring } = device
  const bus = need.bus ?? 1
  const speed = busSpeedOf(stages.design, bus)
  const { min: least = 0, max: most, source } = wiring.busSpeed ?? {}
  const isSlow = speed > (most ?? everyDevice)
  if (!isSlow && speed >= least) return []
  const unsaid = isSlow && most === undefined
  const run = (at: number, on = bus): Edit => ({
    kind: 'setBusSpeed',
    speed: at,
    ...(on > 1 ? { bus: on } : {}),
  })
  const others = all.filter((d) => (d.need.bus ?? 1) === bus)
  const fixes = commonSpeeds(others)
    .slice(-1)
    .map((at): Fix => ({ label: `Run ${named(bus)} at ${hertz(at)}`, edits: [run(at)] }))
  const next = nextBus(stages, bus)
  const own = commonSpeeds([device]).at(-1)
  if (next !== undefined && own !== undefined && others.length > 1)
    fixes.push({
      label: `Put ${need.name} on ${next === 2 ? 'a second bus' : `bus ${next}`} of ${hertz(own)}`,
      edits: [{ kind: 'setBus', id: need.id, bus: next }, run(own, next)],
    })
  return [
    {
      id: `pins.bus-speed:${need.id}`,
      severity: unsaid ? 'notes' : 'risks',
      grade: unsaid ? undefined : 'outside the sheet',
      ...(isSlow
        ? unsaid
          ? say`Whether ${need.name} keeps up with ${named(bus)} at ${hertz(speed)} isn’t known: its part file names no speed.`
          : say`${capital(named(bus))} runs at ${hertz(speed)}; ${need.name} keeps up with ${hertz(most!)} at most.`
        : say`${need.name} needs ${named(bus)} at ${hertz(least)} or faster; it runs at ${hertz(speed)}.`),
      because: [
        say`${capital(named(bus))} runs at ${hertz(speed)}`,
        unsaid
          ? say`The specification asks each device for ${hertz(everyDevice)} only; the rest is the device’s own`
          : say`${need.name}: ${isSlow ? say`${hertz(most!)} at most` : say`${hertz(least)} at least`} (${part.sheet}${source ? `, ${source}` : ''})`,
        isSlow
          ? say`A device that doesn’t keep up misses bits, and may hold the bus low for all`
          : say`On a slower bus it loses data between two readings`,
      ],
      fixes,
      about: { device: need.id },
    },
  ]
}
