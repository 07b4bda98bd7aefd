import {
  type Design,
  type DeviceLead,
  type FedBy,
  feederName,
  feedersOf,
  type LimitName,
  type NeedDevice,
  type Stance,
  type StateChoice,
} from '../types'
import { capital, timeWords } from '../../quantity'
import { defineEdit, deviceName, without } from './define'

const withDevices = (design: Design, devices: NeedDevice[]): Design => ({
  ...design,
  needs: { ...design.needs, devices },
})
const change = (design: Design, id: string, by: (d: NeedDevice) => NeedDevice): Design =>
  withDevices(
    design,
    design.needs.devices.map((d) => (d.id === id ? by(d) : d)),
  )
/** What hangs on a bridge hangs on what feeds that. */
const bridgeOf = (design: Design, id: string): string =>
  design.needs.devices.find((d) => d.id === id)?.drivenBy ?? id
const feedTogether = (design: Design, id: string, fedBy: NeedDevice['fedBy']): Design => {
  const bridge = bridgeOf(design, id)
  return withDevices(
    design,
    design.needs.devices.map((d) => (d.id === bridge || d.drivenBy === bridge ? { ...d, fedBy } : d)),
  )
}
const hang = (design: Design, id: string, bridge: string): Design => {
  const fedBy = design.needs.devices.find((d) => d.id === bridge)?.fedBy
  return forget(
    change(design, id, (d) => ({ ...d, drivenBy: bridge, fedBy })),
    (signal) => signal.startsWith(`${id}.`),
  )
}
const nextId = (design: Design): string =>
  `d${Math.max(0, ...design.needs.devices.map((d) => Number(/^d(\d+)$/.exec(d.id)?.[1] ?? 0))) + 1}`
const withOneMore = (design: Design, { part, name, count }: Omit<NeedDevice, 'id'>): Design => {
  const taken = new Set(design.needs.devices.map((n) => n.name))
  let free = name
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`
  return withDevices(design, [...design.needs.devices, { id: nextId(design), part, name: free, count }])
}
/** Locks and support choices of signals that are gone go as well. */
const forget = (design: Design, gone: (signal: string) => boolean): Design => {
  const keep = <V>(r: Record<string, V>) =>
    without(r, ...Object.keys(r).filter((k) => gone(k.replace(/^[a-z-]+:/, ''))))
  return {
    ...design,
    pins: {
      ...design.pins,
      locks: keep(design.pins.locks),
      kept: keep(design.pins.kept),
      ...(design.pins.shifts ? { shifts: keep(design.pins.shifts) } : {}),
      ...(design.pins.soldered ? { soldered: keep(design.pins.soldered) } : {}),
    },
    build: { ...design.build, support: keep(design.build.support) },
  }
}
/** What the states say of the devices' modes, and of `gone`, which begins none of them any more. */
const withModes = (
  design: Design,
  by: (modes: Record<string, string>) => Record<string, string>,
  gone?: string,
): Design =>
  design.needs.states
    ? {
        ...design,
        needs: {
          ...design.needs,
          states: design.needs.states.map((s) => ({
            ...s,
            ...(s.modes && { modes: by(s.modes) }),
            ...(s.begins !== undefined && s.begins === gone && { begins: undefined }),
          })),
        },
      }
    : design
/** Nothing of it is left: no lock, mode or choice, and nothing that hangs on it. */
const withoutDevice = (design: Design, id: string): Design =>
  forget(
    withModes(
      withDevices(
        design,
        design.needs.devices
          .filter((d) => d.id !== id)
          .map((d) => (d.drivenBy === id ? { ...d, drivenBy: undefined } : d)),
      ),
      (modes) => without(modes, id),
      id,
    ),
    (signal) => signal.startsWith(`${id}.`),
  )
const limitWords: Record<LimitName, string> = {
  ambient: 'ambient temperature',
  coldest: 'coldest air',
  charges: 'number of charges',
  current: 'current budget',
  price: 'price limit',
  runtime: 'runtime that is asked for',
  energy: 'energy limit',
  heat: 'heat limit',
  parts: 'limit of parts',
  area: 'limit of area',
  awake: 'time awake',
}
const stanceWords: Record<Stance, string> = {
  'by-the-book': 'by the book',
  lean: 'lean',
  'bare-bones': 'bare bones',
}

const withState = (states: StateChoice[], state: StateChoice): StateChoice[] => [
  ...states.filter((s) => s.lasts !== undefined),
  state,
  ...states.filter((s) => s.lasts === undefined),
]

export const needsEdits = {
  renameProject: defineEdit<{ name: string }>({
    label: ({ name }) => `Call the project “${name}”`,
    apply: (design, { name }) => ({ ...design, name }),
  }),
  setStance: defineEdit<{ stance: Stance }>({
    label: ({ stance }) => `Build ${stanceWords[stance]}`,
    apply: (design, { stance }) => ({ ...design, stance }),
  }),
  setLimit: defineEdit<{ limit: LimitName; value: number | null }>({
    label: ({ limit, value }) => `${value === null ? 'Lift' : 'Set'} the ${limitWords[limit]}`,
    apply: (design, { limit, value }) => {
      // The ambient temperature can't be lifted: every heat sum stands on it.
      if (value === null && limit === 'ambient') return design
      // Named states say how much of the time it is awake.
      if (limit === 'awake' && design.needs.states) return design
      const limits = { ...design.needs.limits, [limit]: value ?? undefined }
      return { ...design, needs: { ...design.needs, limits } }
    },
  }),
  addDevices: defineEdit<{ devices: { part: string; name: string; count: number }[] }>({
    label: ({ devices }) =>
      `Add ${devices.map((d) => (d.count > 1 ? `${d.count} × ${d.name}` : d.name)).join(', ')}`,
    apply: (design, { devices }) => devices.reduce(withOneMore, design),
  }),
  removeDevice: defineEdit<{ id: string }>({
    label: ({ id }, design) => `Remove ${deviceName(design, id)}`,
    apply: (design, { id }) => withoutDevice(design, id),
  }),
  renameDevice: defineEdit<{ id: string; name: string }>({
    label: ({ id, name }, design) => `Rename ${deviceName(design, id)} to ${name}`,
    apply: (design, { id, name }) => change(design, id, (d) => ({ ...d, name })),
  }),
  setCount: defineEdit<{ id: string; count: number }>({
    label: ({ id, count }, design) => `${count} × ${deviceName(design, id)}`,
    apply: (design, { id, count }) =>
      forget(
        change(design, id, (d) => ({ ...d, count })),
        (signal) => signal.startsWith(`${id}.`) && Number(signal.split('.')[1]) > count,
      ),
  }),
  /** No wiring: the plan chooses. */
  setWiring: defineEdit<{ id: string; wiring: string | null }>({
    label: ({ id, wiring }, design) =>
      wiring === null
        ? `Let the plan choose the wiring of ${deviceName(design, id)}`
        : `Wire ${deviceName(design, id)} by ${wiring}`,
    apply: (design, { id, wiring }) =>
      forget(
        change(design, id, (d) => ({ ...d, wiring: wiring ?? undefined })),
        (signal) => signal.startsWith(`${id}.`),
      ),
  }),
  setAddress: defineEdit<{ id: string; address: number | null }>({
    label: ({ id, address }, design) =>
      `Give ${deviceName(design, id)} ${address === null ? 'its first address' : `address 0x${address.toString(16)}`}`,
    apply: (design, { id, address }) => change(design, id, (d) => ({ ...d, address: address ?? undefined })),
  }),
  setFedBy: defineEdit<{ id: string; by: FedBy }>({
    label: ({ id, by }, design) => `Feed ${deviceName(design, id)} from the ${feederName(by)}`,
    apply: (design, { id, by }) =>
      feedersOf(design).includes(by) ? feedTogether(design, id, by === 'rail' ? undefined : by) : design,
  }),
  /** Which of several buses of a kind a device is on. */
  setBus: defineEdit<{ id: string; bus: number }>({
    label: ({ id, bus }, design) =>
      `Put ${deviceName(design, id)} on ${bus === 1 ? 'the first bus' : bus === 2 ? 'a second bus' : `bus ${bus}`}`,
    apply: (design, { id, bus }) => change(design, id, (d) => ({ ...d, bus: bus > 1 ? bus : undefined })),
  }),
  /** Each of several of one device on its own, so that each can have its own wiring, address and links. */
  splitDevice: defineEdit<{ id: string }>({
    label: ({ id }, design) => `Treat ${deviceName(design, id)} one by one`,
    apply: (design, { id }) => {
      const need = design.needs.devices.find((d) => d.id === id)
      if (!need || need.count < 2) return design
      const first = Number(/^d(\d+)$/.exec(nextId(design))![1])
      const ids = [id, ...Array.from({ length: need.count - 1 }, (_, i) => `d${first + i}`)]
      const taken = new Set(design.needs.devices.filter((d) => d.id !== id).map((d) => d.name))
      const alone = ids.map((own, i): NeedDevice => {
        let name = `${need.name} ${i + 1}`
        while (taken.has(name)) name = `${name} own`
        taken.add(name)
        return { ...need, id: own, name, count: 1 }
      })
      // `d3.2.OUT` of the device is `d7.1.OUT` of the second one.
      const renamed = <V>(of: Record<string, V>): Record<string, V> =>
        Object.fromEntries(
          Object.entries(of).map(([key, value]) => {
            const at = new RegExp(`^((?:[a-z-]+:)?)${id}\\.(\\d+)\\.`).exec(key)
            const own = at && ids[Number(at[2]) - 1]
            return [own ? `${at[1]}${own}.1.${key.slice(at[0].length)}` : key, value]
          }),
        )
      const { locks, kept, soldered, radio, shifts } = design.pins
      return {
        ...withModes(
          withDevices(
            design,
            design.needs.devices.flatMap((d) => (d.id === id ? alone : [d])),
          ),
          (modes) =>
            modes[id] === undefined
              ? modes
              : { ...modes, ...Object.fromEntries(ids.map((own) => [own, modes[id]!])) },
        ),
        pins: {
          ...design.pins,
          locks: renamed(locks),
          kept: renamed(kept),
          ...(soldered ? { soldered: renamed(soldered) } : {}),
          ...(radio ? { radio: renamed(radio) } : {}),
          ...(shifts ? { shifts: renamed(shifts) } : {}),
        },
        build: { ...design.build, support: renamed(design.build.support) },
      }
    },
  }),
  /** All of them at once: one has the rest of the time. They take the place of the share of the time awake. */
  setStates: defineEdit<{ states: StateChoice[] }>({
    label: ({ states }) =>
      states.length > 0 ? `Name the states ${states.map((s) => s.name).join(', ')}` : 'Name no states',
    apply: (design, { states }) => ({
      ...design,
      needs:
        states.length > 0
          ? { ...design.needs, states, limits: { ...design.needs.limits, awake: undefined } }
          : { ...design.needs, states: undefined },
    }),
  }),
  /** Another length, rate, mode, or name of one of them; `undefined` takes what is said away. */
  changeState: defineEdit<{ id: string; change: Partial<Omit<StateChoice, 'id'>> }>({
    label: ({ id, change }, design) => {
      const name = design.needs.states?.find((s) => s.id === id)?.name ?? 'State'
      if (change.name !== undefined) return `Call ${name} “${change.name}”`
      if (change.lasts !== undefined) return `${capital(name)} lasts ${timeWords(change.lasts)}`
      if (change.every !== undefined) return `${capital(name)} every ${timeWords(change.every)}`
      if (change.perDay !== undefined) return `${capital(name)} ${change.perDay} times a day`
      return `Change what ${name} does`
    },
    apply: (design, { id, change }) => ({
      ...design,
      needs: {
        ...design.needs,
        states: design.needs.states?.map((s) => (s.id === id ? { ...s, ...change } : s)),
      },
    }),
  }),
  /** One more, before the one that has the rest of the time. */
  addState: defineEdit<{ state: StateChoice }>({
    label: ({ state }) => `Add the state ${state.name}`,
    apply: (design, { state }) => ({
      ...design,
      needs: { ...design.needs, states: withState(design.needs.states ?? [], state) },
    }),
  }),
  removeState: defineEdit<{ id: string }>({
    label: ({ id }, design) => `Do without ${design.needs.states?.find((s) => s.id === id)?.name ?? 'state'}`,
    // The one that has the rest of the time can’t go: something must have it.
    apply: (design, { id }) => ({
      ...design,
      needs: {
        ...design.needs,
        states: design.needs.states?.filter((s) => s.id !== id || s.lasts === undefined),
      },
    }),
  }),
  setRadio: defineEdit<{ radio: boolean }>({
    label: ({ radio }) => (radio ? 'Use the radio' : 'Do without the radio'),
    apply: (design, { radio }) => ({ ...design, needs: { ...design.needs, radio: radio || undefined } }),
  }),
  setBusSpeed: defineEdit<{ speed: number; bus?: number }>({
    label: ({ speed, bus = 1 }) => `Run ${bus > 1 ? `I2C bus ${bus}` : 'the I2C bus'} at ${speed / 1000} kHz`,
    apply: (design, { speed, bus = 1 }) => ({
      ...design,
      needs:
        bus > 1
          ? { ...design.needs, busSpeeds: { ...design.needs.busSpeeds, [bus]: speed } }
          : { ...design.needs, busSpeed: speed === 100e3 ? undefined : speed },
    }),
  }),
  setVariant: defineEdit<{ id: string; variant: string | null }>({
    label: ({ id, variant }, design) => `Use variant ${variant ?? 'as drawn'} of ${deviceName(design, id)}`,
    apply: (design, { id, variant }) => change(design, id, (d) => ({ ...d, variant: variant ?? undefined })),
  }),
  /** No part: the one that the device’s file proposes. */
  setTransistor: defineEdit<{ id: string; signal: string; part: string | null; name: string }>({
    label: ({ id, part, name }, design) =>
      part
        ? `${capital(name)} switches ${deviceName(design, id)}`
        : `${deviceName(design, id)} is switched as proposed`,
    apply: (design, { id, signal, part }) =>
      change(design, id, (d) => {
        const left = { ...without(d.transistors ?? {}, signal), ...(part ? { [signal]: part } : {}) }
        return { ...d, transistors: Object.keys(left).length > 0 ? left : undefined }
      }),
  }),
  /** On an output of a bridge that is there, in the place of its transistor; no bridge: on its transistor again. */
  hangOn: defineEdit<{ id: string; bridge: string | null }>({
    label: ({ id, bridge }, design) =>
      bridge === null
        ? `${deviceName(design, id)} is switched by a transistor`
        : `Hang ${deviceName(design, id)} on ${deviceName(design, bridge)}`,
    apply: (design, { id, bridge }) => {
      if (bridge === null) return change(design, id, (d) => ({ ...d, drivenBy: undefined }))
      const there = design.needs.devices.find((d) => d.id === bridge)
      return there && bridge !== id && there.drivenBy === undefined ? hang(design, id, bridge) : design
    },
  }),
  /** On one that is added for it, fed as it is; in the place of the one that it hung on alone. */
  addBridge: defineEdit<{ id: string; part: string; name: string }>({
    label: ({ id, name }, design) => `Hang ${deviceName(design, id)} on ${name}`,
    apply: (design, { id, part, name }) => {
      const load = design.needs.devices.find((d) => d.id === id)
      if (!load) return design
      const { devices } = design.needs
      const alone = devices.find((d) => d.id === load.drivenBy)
      const goes =
        alone && !devices.some((d) => d.id !== id && d.drivenBy === alone.id) ? alone.id : undefined
      const left = goes === undefined ? design : withoutDevice(design, goes)
      const added = withOneMore(left, { part, name: capital(name), count: 1 })
      const bridge = added.needs.devices.at(-1)!.id
      return hang(
        change(added, bridge, (d) => ({ ...d, ...(load.fedBy && { fedBy: load.fedBy }) })),
        id,
        bridge,
      )
    },
  }),
  /** A field that is undefined is taken away; of a lead with nothing in it nothing is left. */
  changeDeviceLead: defineEdit<{ id: string; change: DeviceLead; what: string }>({
    label: ({ id, what }, design) => `Lead to ${deviceName(design, id)}: ${what}`,
    apply: (design, { id, change: changed }) =>
      change(design, id, (d) => {
        const now = Object.entries({ ...d.lead, ...changed }).filter(([, v]) => v !== undefined)
        return { ...d, lead: now.length > 0 ? Object.fromEntries(now) : undefined }
      }),
  }),
  setSetting: defineEdit<{ id: string; setting: string; value: number | null }>({
    label: ({ id, setting }, design) => `Set ${setting.split('.').join(' ')} of ${deviceName(design, id)}`,
    apply: (design, { id, setting, value }) =>
      change(design, id, (d) => ({
        ...d,
        settings: value === null ? without(d.settings ?? {}, setting) : { ...d.settings, [setting]: value },
      })),
  }),
}
