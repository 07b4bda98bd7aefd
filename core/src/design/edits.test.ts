// Every edit there is, by hand: its words in the undo list, and all that it changes. The design it is given can't be written to.

import { applyEdit, type Design, type Edit, editLabel } from '.'

const frozen = <T>(of: T): T => {
  if (typeof of === 'object' && of !== null) Object.values(Object.freeze(of)).forEach(frozen)
  return of
}
const lamp = { id: 'd1', part: 'lamp-red', name: 'Lamp', count: 3, settings: { 'light.current': 0.004 } }
const face = {
  id: 'd2',
  part: 'glow-display',
  name: 'Face',
  count: 1,
  wiring: 'i2c',
  address: 0x3c,
  bus: 2,
  fedBy: 'rail3' as const,
}
const pump = { id: 'd7', part: 'relay-module', name: 'Pump', count: 1, fedBy: 'feed' as const }
const second = { id: 'rail2' as const, regulator: 'bl33-low', from: 'feed' as const }
const third = { id: 'rail3' as const, regulator: 'bu5-step', from: 'rail2' as const }
const meter = { id: 'm1', state: 'asleep', at: 'source' as const, reading: 2e-3 }
const plan = { 'd1.1.light': 'PA1', 'd1.2.light': 'PA2', 'd7.1.IN': 'PB1' }
const base: Design = frozen({
  format: 1,
  name: 'Pond',
  stance: 'lean',
  needs: { devices: [lamp, face, pump], limits: { ambient: 30, price: 20 } },
  chip: { part: 'td8-28-dip', clock: { source: 'internal', frequency: 8e6 }, also: ['trestle-plain'] },
  pins: {
    locks: { 'd1.1.light': 'PA1', 'd7.1.IN': 'PB1' },
    soldered: { 'd1.2.light': 'PA2' },
    excluded: ['PC0'],
    kept: plan,
    radio: { 'd9.1.level': 'pause' },
    shifts: { 'd1.3.light': 'mosfet' },
  },
  power: {
    source: 'adapter-9v',
    regulator: 'bl5-low',
    feed: 'adapter-5v',
    rails: [second, third],
    measured: [meter],
    lead: { wire: 'wire-24', length: 2 },
    latch: { pass: 'pfet-low' },
  },
  build: { support: { 'led:d1.2.light': 'out', bulk: 'in' } },
})
type Patch = { [K in keyof Design]?: Design[K] extends object ? Partial<Design[K]> : Design[K] }
const devices = (...of: Design['needs']['devices']): Patch => ({ needs: { devices: of } })
const pins = (of: Partial<Design['pins']>): Patch => ({ pins: of })
const chip = (of: Partial<Design['chip']>): Patch => ({ chip: of })
const power = (of: Partial<Design['power']>): Patch => ({ power: of })
const support = (of: Design['build']['support']): Patch => ({ build: { support: of } })
const patched = (by: Patch): unknown => {
  const design = { ...base } as Record<string, unknown>
  for (const [key, value] of Object.entries(by))
    design[key] = typeof value === 'object' ? { ...(design[key] as object), ...(value as object) } : value
  return design
}

type Row<K extends Edit['kind']> = [
  args: Omit<Extract<Edit, { kind: K }>, 'kind'>,
  label: string,
  changes: Patch,
]
const table: { [K in Edit['kind']]: Row<K>[] } = {
  renameProject: [[{ name: 'Pool' }, 'Call the project “Pool”', { name: 'Pool' }]],
  setStance: [[{ stance: 'bare-bones' }, 'Build bare bones', { stance: 'bare-bones' }]],
  setLimit: [
    [
      { limit: 'ambient', value: 45 },
      'Set the ambient temperature',
      { needs: { limits: { ambient: 45, price: 20 } } },
    ],
    // Every heat sum stands on it.
    [{ limit: 'ambient', value: null }, 'Lift the ambient temperature', {}],
    [{ limit: 'price', value: null }, 'Lift the price limit', { needs: { limits: { ambient: 30 } } }],
    [
      { limit: 'current', value: 0.2 },
      'Set the current budget',
      { needs: { limits: { ambient: 30, price: 20, current: 0.2 } } },
    ],
    [
      { limit: 'awake', value: 0.01 },
      'Set the time awake',
      { needs: { limits: { ambient: 30, price: 20, awake: 0.01 } } },
    ],
  ],
  addDevices: [
    [
      {
        devices: [
          { part: 'push-button', name: 'Go', count: 2 },
          { part: 'lamp-green', name: 'Lamp', count: 1 },
        ],
      },
      'Add 2 × Go, Lamp',
      devices(
        lamp,
        face,
        pump,
        { id: 'd8', part: 'push-button', name: 'Go', count: 2 },
        { id: 'd9', part: 'lamp-green', name: 'Lamp 2', count: 1 },
      ),
    ],
  ],
  setStates: [
    [
      { states: [{ id: 'b', name: 'Idle' }] },
      'Name the states Idle',
      { needs: { ...base.needs, states: [{ id: 'b', name: 'Idle' }] } },
    ],
    [{ states: [] }, 'Name no states', {}],
  ],
  // Without states there is none to change; with them: below.
  changeState: [[{ id: 'a', change: { lasts: 2 } }, 'State lasts 2 s', {}]],
  addState: [
    [
      { state: { id: 'b', name: 'Idle' } },
      'Add the state Idle',
      { needs: { ...base.needs, states: [{ id: 'b', name: 'Idle' }] } },
    ],
  ],
  removeState: [[{ id: 'a' }, 'Do without state', {}]],
  removeDevice: [
    [
      { id: 'd1' },
      'Remove Lamp',
      {
        ...devices(face, pump),
        ...pins({ locks: { 'd7.1.IN': 'PB1' }, soldered: {}, kept: { 'd7.1.IN': 'PB1' }, shifts: {} }),
        ...support({ bulk: 'in' }),
      },
    ],
  ],
  renameDevice: [
    [
      { id: 'd7', name: 'Fountain' },
      'Rename Pump to Fountain',
      devices(lamp, face, { ...pump, name: 'Fountain' }),
    ],
  ],
  setCount: [
    [
      { id: 'd1', count: 1 },
      '1 × Lamp',
      {
        ...devices({ ...lamp, count: 1 }, face, pump),
        ...pins({ soldered: {}, kept: { 'd1.1.light': 'PA1', 'd7.1.IN': 'PB1' }, shifts: {} }),
        ...support({ bulk: 'in' }),
      },
    ],
    [{ id: 'd7', count: 2 }, '2 × Pump', devices(lamp, face, { ...pump, count: 2 })],
  ],
  setWiring: [
    [
      { id: 'd2', wiring: null },
      'Let the plan choose the wiring of Face',
      devices(lamp, { ...face, wiring: undefined }, pump),
    ],
    [{ id: 'd2', wiring: 'spi' }, 'Wire Face by spi', devices(lamp, { ...face, wiring: 'spi' }, pump)],
  ],
  setAddress: [
    [{ id: 'd2', address: 0x3d }, 'Give Face address 0x3d', devices(lamp, { ...face, address: 0x3d }, pump)],
    [
      { id: 'd2', address: null },
      'Give Face its first address',
      devices(lamp, { ...face, address: undefined }, pump),
    ],
  ],
  setFedBy: [
    [{ id: 'd7', by: 'rail' }, 'Feed Pump from the rail', devices(lamp, face, { ...pump, fedBy: undefined })],
    [
      { id: 'd1', by: 'source' },
      'Feed Lamp from the source',
      devices({ ...lamp, fedBy: 'source' }, face, pump),
    ],
    [
      { id: 'd2', by: 'feed' },
      'Feed Face from the second feed',
      devices(lamp, { ...face, fedBy: 'feed' }, pump),
    ],
  ],
  setBus: [
    [{ id: 'd2', bus: 1 }, 'Put Face on the first bus', devices(lamp, { ...face, bus: undefined }, pump)],
    [{ id: 'd2', bus: 2 }, 'Put Face on a second bus', {}],
    [{ id: 'd2', bus: 3 }, 'Put Face on bus 3', devices(lamp, { ...face, bus: 3 }, pump)],
  ],
  splitDevice: [
    [{ id: 'd7' }, 'Treat Pump one by one', {}],
    [
      { id: 'd1' },
      'Treat Lamp one by one',
      {
        ...devices(
          { ...lamp, name: 'Lamp 1', count: 1 },
          { ...lamp, id: 'd8', name: 'Lamp 2', count: 1 },
          { ...lamp, id: 'd9', name: 'Lamp 3', count: 1 },
          face,
          pump,
        ),
        ...pins({
          soldered: { 'd8.1.light': 'PA2' },
          kept: { 'd1.1.light': 'PA1', 'd8.1.light': 'PA2', 'd7.1.IN': 'PB1' },
          shifts: { 'd9.1.light': 'mosfet' },
        }),
        ...support({ 'led:d8.1.light': 'out', bulk: 'in' }),
      },
    ],
  ],
  setRadio: [
    [{ radio: true }, 'Use the radio', { needs: { radio: true } }],
    [{ radio: false }, 'Do without the radio', {}],
  ],
  setBusSpeed: [
    [{ speed: 400e3 }, 'Run the I2C bus at 400 kHz', { needs: { busSpeed: 400e3 } }],
    [{ speed: 100e3 }, 'Run the I2C bus at 100 kHz', {}],
    [{ speed: 1e6, bus: 3 }, 'Run I2C bus 3 at 1000 kHz', { needs: { busSpeeds: { 3: 1e6 } } }],
  ],
  setVariant: [
    [
      { id: 'd2', variant: 'clone' },
      'Use variant clone of Face',
      devices(lamp, { ...face, variant: 'clone' }, pump),
    ],
    [{ id: 'd2', variant: null }, 'Use variant as drawn of Face', {}],
  ],
  setTransistor: [
    [
      { id: 'd1', signal: 'drive', part: 'nfet-strong', name: 'strong MOSFET' },
      'Strong MOSFET switches Lamp',
      devices({ ...lamp, transistors: { drive: 'nfet-strong' } }, face, pump),
    ],
    [{ id: 'd1', signal: 'drive', part: null, name: '' }, 'Lamp is switched as proposed', {}],
  ],
  // What is hung elsewhere is fed from there, and its legs are free.
  hangOn: [
    [
      { id: 'd1', bridge: 'd7' },
      'Hang Lamp on Pump',
      {
        ...devices({ ...lamp, drivenBy: 'd7', fedBy: 'feed' }, face, pump),
        ...pins({ locks: { 'd7.1.IN': 'PB1' }, soldered: {}, kept: { 'd7.1.IN': 'PB1' }, shifts: {} }),
        ...support({ bulk: 'in' }),
      },
    ],
    [{ id: 'd1', bridge: 'd1' }, 'Hang Lamp on Lamp', {}],
    [{ id: 'd1', bridge: null }, 'Lamp is switched by a transistor', {}],
  ],
  addBridge: [
    [
      { id: 'd7', part: 'bridge-cool', name: 'cool bridge' },
      'Hang Pump on cool bridge',
      {
        ...devices(
          lamp,
          face,
          { ...pump, drivenBy: 'd8' },
          { id: 'd8', part: 'bridge-cool', name: 'Cool bridge', count: 1, fedBy: 'feed' },
        ),
        ...pins({
          locks: { 'd1.1.light': 'PA1' },
          kept: { 'd1.1.light': 'PA1', 'd1.2.light': 'PA2' },
        }),
      },
    ],
  ],
  changeDeviceLead: [
    [
      { id: 'd1', change: { wire: 'wire-0-5', length: 2 }, what: '2 m' },
      'Lead to Lamp: 2 m',
      devices({ ...lamp, lead: { wire: 'wire-0-5', length: 2 } }, face, pump),
    ],
    [{ id: 'd1', change: { wire: undefined }, what: 'no wire' }, 'Lead to Lamp: no wire', {}],
  ],
  setSetting: [
    [
      { id: 'd1', setting: 'light.current', value: 0.01 },
      'Set light current of Lamp',
      devices({ ...lamp, settings: { 'light.current': 0.01 } }, face, pump),
    ],
    [
      { id: 'd1', setting: 'light.current', value: null },
      'Set light current of Lamp',
      devices({ ...lamp, settings: {} }, face, pump),
    ],
  ],
  chooseChip: [
    [{ part: 'td8-28-dip', name: 'itself', kept: {} }, 'Choose itself', {}],
    [
      {
        part: 'qm32-48',
        name: 'QM32-48',
        kept: { 'd7.1.IN': 'P1' },
        soldered: { 'd1.2.light': 'P2' },
        resetAsPort: true,
      },
      'Choose QM32-48',
      {
        chip: { part: 'qm32-48', clock: undefined, also: undefined },
        ...pins({
          locks: {},
          excluded: [],
          kept: { 'd7.1.IN': 'P1' },
          soldered: { 'd1.2.light': 'P2' },
          resetAsPort: true,
        }),
      },
    ],
  ],
  solder: [
    [
      { signal: 'd7.1.IN', name: 'Pump', pin: 'PB1' },
      'Mark Pump as soldered to PB1',
      pins({ soldered: { 'd1.2.light': 'PA2', 'd7.1.IN': 'PB1' } }),
    ],
  ],
  unsolder: [
    [{ signal: 'd1.2.light', name: 'Lamp 2' }, 'Lamp 2 is no longer soldered', pins({ soldered: undefined })],
  ],
  useReset: [
    [{ port: true }, 'Use the reset leg as a port', pins({ resetAsPort: true })],
    [{ port: false }, 'Keep the reset leg for reset', {}],
  ],
  keepPlan: [[{ kept: { a: 'PA0' } }, 'Keep this plan', pins({ kept: { a: 'PA0' } })]],
  setAlso: [
    [
      { part: 'trestle-32', name: 'Trestle 32', on: true },
      'Plan for Trestle 32 as well',
      chip({ also: ['trestle-plain', 'trestle-32'] }),
    ],
    [
      { part: 'trestle-plain', name: 'Trestle', on: false },
      'Plan without Trestle',
      chip({ also: undefined }),
    ],
  ],
  makeStandalone: [
    [
      { part: 'td8-28-flat', name: 'TD8', kept: {}, regulator: 'bl5-cool' },
      'Build it around the bare TD8',
      // What regulates already stays.
      { chip: { part: 'td8-28-flat', clock: undefined, also: undefined }, ...pins({ kept: {} }) },
    ],
  ],
  takeFacts: [
    [
      { part: { id: 'led-red', name: 'red LED' } as never },
      'Take over the new facts of red LED',
      { parts: { 'led-red': { id: 'led-red', name: 'red LED' } as never } },
    ],
  ],
  chooseClock: [
    [
      { clock: { source: 'crystal', frequency: 16e6, part: 'crystal-16mhz' }, name: 'a crystal' },
      'Clock from a crystal',
      chip({ clock: { source: 'crystal', frequency: 16e6, part: 'crystal-16mhz' } }),
    ],
  ],
  moveSignal: [
    [
      // Whoever sat on the leg gives way, in the plan and in the locks; what is moved is soldered there no longer.
      { signal: 'd1.2.light', name: 'Lamp 2', pin: 'PB1', kept: plan },
      'Move Lamp 2 to PB1',
      pins({
        locks: { 'd1.1.light': 'PA1', 'd1.2.light': 'PB1' },
        kept: { 'd1.1.light': 'PA1' },
        soldered: undefined,
      }),
    ],
  ],
  swapSignals: [
    [
      { a: 'd1.1.light', b: 'd1.2.light', nameA: 'one', nameB: 'two', kept: plan },
      'Swap one and two',
      pins({
        locks: { 'd7.1.IN': 'PB1', 'd1.1.light': 'PA2', 'd1.2.light': 'PA1' },
        kept: { 'd7.1.IN': 'PB1' },
        soldered: undefined,
      }),
    ],
    [{ a: 'd1.1.light', b: 'nowhere', nameA: 'one', nameB: 'two', kept: plan }, 'Swap one and two', {}],
  ],
  lockSignal: [
    [
      { signal: 'd1.3.light', name: 'Lamp 3', pin: 'PB1' },
      'Lock Lamp 3 on PB1',
      pins({ locks: { 'd1.1.light': 'PA1', 'd1.3.light': 'PB1' } }),
    ],
  ],
  unlockSignal: [
    [
      { signal: 'd7.1.IN', name: 'Pump' },
      'Unlock Pump',
      pins({ locks: { 'd1.1.light': 'PA1' }, kept: { 'd1.1.light': 'PA1', 'd1.2.light': 'PA2' } }),
    ],
  ],
  replan: [[{}, 'Plan afresh, keeping only locks', pins({ kept: {} })]],
  excludePin: [
    [
      { pin: 'PB1', kept: { x: 'PA5' } },
      'Keep PB1 free',
      pins({ excluded: ['PC0', 'PB1'], locks: { 'd1.1.light': 'PA1' }, kept: { x: 'PA5' } }),
    ],
    [{ pin: 'PC0', kept: plan }, 'Keep PC0 free', {}],
  ],
  includePin: [[{ pin: 'PC0' }, 'Allow PC0 again', pins({ excluded: [] })]],
  answerRadio: [
    [
      { signal: 'd9.1.level', name: 'Level', answer: null },
      'Keep Level off converters that the radio stops',
      pins({ radio: {} }),
    ],
    [
      { signal: 's', name: 'Level', answer: 'accept' },
      'Accept that Level fails while the radio is on',
      pins({ radio: { 'd9.1.level': 'pause', s: 'accept' } }),
    ],
    [
      { signal: 's', name: 'Level', answer: 'pause' },
      'Pause the radio to read Level',
      pins({ radio: { 'd9.1.level': 'pause', s: 'pause' } }),
    ],
  ],
  fitShift: [
    [
      { signal: 's', name: 'Level', shift: 'divider' },
      'Fit a divider into Level',
      pins({ shifts: { 'd1.3.light': 'mosfet', s: 'divider' } }),
    ],
    [{ signal: 'd1.3.light', name: 'Lamp 3', shift: null }, 'Make Lamp 3 a plain line', pins({ shifts: {} })],
  ],
  chooseSource: [
    [{ part: 'usb-port', name: 'USB' }, 'Feed it from USB', power({ source: 'usb-port' })],
    [
      { part: 'cell-aa', name: 'AA cell, 3 in a row', cells: { series: 3 } },
      'Feed it from AA cell, 3 in a row',
      power({ source: 'cell-aa', cells: { series: 3 } }),
    ],
  ],
  chooseGuard: [
    [
      { part: 'pfet-low', name: 'Low' },
      'Low against a plug the wrong way round',
      power({ guard: 'pfet-low' }),
    ],
    [
      { part: null, name: '' },
      'No transistor against a plug the wrong way round',
      power({ guard: undefined }),
    ],
  ],
  changeCells: [
    [
      { of: 'source', change: { series: 4 }, name: 'AA cell' },
      'AA cell: 4 in a row',
      power({ cells: { series: 4, parallel: 1 } }),
    ],
    [
      { of: 'feed', change: { series: 2, parallel: 3 }, name: 'AA cell' },
      'AA cell: 2 in a row, 3 beside one another',
      power({ feedCells: { series: 2, parallel: 3 } }),
    ],
  ],
  chooseFeed: [
    [{ part: 'adapter-12v', name: '12 V' }, 'Second feed from 12 V', power({ feed: 'adapter-12v' })],
    [
      { part: null, name: '' },
      'Do without the second feed',
      {
        ...power({ feed: undefined, rails: [{ ...second, from: undefined }, third] }),
        ...devices(lamp, face, { ...pump, fedBy: undefined }),
      },
    ],
  ],
  addRail: [
    [
      { rail: { id: 'rail4', regulator: 'bl5-low' }, name: 'BL5' },
      'Add a fourth rail behind BL5',
      power({ rails: [second, third, { id: 'rail4', regulator: 'bl5-low' }] }),
    ],
    // There is one of that name.
    [{ rail: { id: 'rail3', regulator: 'bl5-low' }, name: 'BL5' }, 'Add a third rail behind BL5', {}],
  ],
  changeRail: [
    [
      { id: 'rail2', change: { regulator: 'bl5-low' }, what: 'BL5' },
      'Second rail: BL5',
      power({ rails: [{ ...second, regulator: 'bl5-low' }, third] }),
    ],
    [
      { id: 'rail3', change: { from: 'source' }, what: 'from the source' },
      'Third rail: from the source',
      power({ rails: [second, { ...third, from: undefined }] }),
    ],
    // The third hangs on the second.
    [
      { id: 'rail2', change: { from: 'rail3' }, what: 'from the third rail' },
      'Second rail: from the third rail',
      {},
    ],
  ],
  removeRail: [
    [
      { id: 'rail3' },
      'Do without the third rail',
      { ...power({ rails: [second] }), ...devices(lamp, { ...face, fedBy: undefined }, pump) },
    ],
    // What hung on the second hangs on what that hung on.
    [{ id: 'rail2' }, 'Do without the second rail', power({ rails: [{ ...third, from: 'feed' }] })],
  ],
  chooseRegulator: [
    [{ part: 'br5-plain', name: 'BR5' }, 'Regulate with BR5', power({ regulator: 'br5-plain' })],
    [{ part: null, name: '' }, 'Feed the rail without a regulator', power({ regulator: undefined })],
  ],
  changeLead: [
    [
      { of: 'source', change: { fuse: 'fuse-1' }, what: 'Fuse 1 A' },
      'Lead from the source: Fuse 1 A',
      power({ lead: { wire: 'wire-24', length: 2, fuse: 'fuse-1' } }),
    ],
    [
      { of: 'feed', change: { length: 1.5 }, what: '1.5 m' },
      'Lead of the second feed: 1.5 m',
      power({ feedLead: { length: 1.5 } }),
    ],
    [
      { of: 'source', change: { wire: undefined, length: undefined }, what: 'no wire' },
      'Lead from the source: no wire',
      power({ lead: undefined }),
    ],
  ],
  changeLatch: [
    [
      { change: { pullUp: 47e3 }, what: '47 kΩ' },
      'Latch: 47 kΩ',
      power({ latch: { pass: 'pfet-low', pullUp: 47e3 } }),
    ],
    [{ change: { pass: undefined }, what: 'as proposed' }, 'Latch: as proposed', power({ latch: undefined })],
  ],
  changeCharging: [
    [
      { change: { charger: 'bc42-single', from: 'usb-port' }, what: 'BC42' },
      'Charging: BC42',
      power({ charging: { charger: 'bc42-single', from: 'usb-port' } }),
    ],
    [{ change: { current: 0.1 }, what: '100 mA' }, 'Charging: 100 mA', power({ charging: undefined })],
  ],
  addMeasurement: [
    [
      { measurement: { id: 'm2', state: 'asleep', at: 'source', reading: 2.3e-3 } },
      'Note that 2.3 mA were measured',
      power({ measured: [meter, { id: 'm2', state: 'asleep', at: 'source', reading: 2.3e-3 }] }),
    ],
  ],
  changeMeasurement: [
    [
      { id: 'm1', change: { found: 'the lamp' } },
      'Note what it was: the lamp',
      power({ measured: [{ ...meter, found: 'the lamp' }] }),
    ],
    [
      { id: 'm1', change: { reading: 3e-3 } },
      'Change what was measured',
      power({ measured: [{ ...meter, reading: 3e-3 }] }),
    ],
  ],
  removeMeasurement: [[{ id: 'm1' }, 'Take a measurement away', power({ measured: undefined })]],
  leaveOut: [
    [
      { support: 'bulk', name: 'bulk capacitor' },
      'Leave out the bulk capacitor',
      support({ 'led:d1.2.light': 'out', bulk: 'out' }),
    ],
  ],
  putIn: [
    [
      { support: 'led:d1.2.light', name: 'resistor' },
      'Put in the resistor',
      support({ 'led:d1.2.light': 'in', bulk: 'in' }),
    ],
  ],
}

const rows = Object.entries(table).flatMap(([kind, of]) =>
  of.map(([args, label, changes]) => [label, { kind, ...args } as unknown as Edit, changes] as const),
)
test.each(rows)('%s', (label, edit, changes) => {
  expect(editLabel(edit, base)).toBe(label)
  expect(applyEdit(base, frozen(edit))).toEqual(patched(changes))
})

describe('states follow their devices, and take the place of the time awake', () => {
  const states = [
    { id: 'a', name: 'Lit', lasts: 2, every: 60, modes: { d1: 'on', d7: 'off' } },
    { id: 'b', name: 'Idle', chip: 'sleep' },
  ]
  const named = frozen(
    [
      { kind: 'setLimit' as const, limit: 'awake' as const, value: 0.1 },
      { kind: 'setStates' as const, states },
    ].reduce(applyEdit, base),
  )
  const modes = (edit: Edit) => applyEdit(named, edit).needs.states!.map((s) => s.modes)
  test('named states say how much of the time it is awake', () => {
    expect(named.needs.limits.awake).toBeUndefined()
    expect(applyEdit(named, { kind: 'setLimit', limit: 'awake', value: 0.5 })).toBe(named)
    expect(applyEdit(named, { kind: 'setStates', states: [] }).needs.states).toBeUndefined()
  })
  test.each<[Edit, string, unknown]>([
    [
      { kind: 'changeState', id: 'a', change: { perDay: 8, every: undefined } },
      'Lit 8 times a day',
      [{ id: 'a', name: 'Lit', lasts: 2, perDay: 8, modes: states[0]!.modes }, states[1]],
    ],
    [
      { kind: 'changeState', id: 'a', change: { every: 90, perDay: undefined } },
      'Lit every 1 min 30 s',
      [{ ...states[0], every: 90 }, states[1]],
    ],
    [
      { kind: 'changeState', id: 'b', change: { name: 'Still' } },
      'Call Idle “Still”',
      [states[0], { ...states[1], name: 'Still' }],
    ],
    [
      { kind: 'changeState', id: 'b', change: { chip: undefined } },
      'Change what Idle does',
      [states[0], { id: 'b', name: 'Idle' }],
    ],
    // The last has the rest of the time, and stays the last.
    [
      { kind: 'addState', state: { id: 'c', name: 'Ring', lasts: 1, perDay: 2 } },
      'Add the state Ring',
      [states[0], { id: 'c', name: 'Ring', lasts: 1, perDay: 2 }, states[1]],
    ],
    [{ kind: 'removeState', id: 'a' }, 'Do without Lit', [states[1]]],
    // Something must have the rest of the time.
    [{ kind: 'removeState', id: 'b' }, 'Do without Idle', states],
  ])('%j', (edit, label, left) => {
    expect(editLabel(edit, named)).toBe(label)
    // As it is kept: what is undefined is not there.
    expect(JSON.parse(JSON.stringify(applyEdit(named, edit).needs.states))).toEqual(left)
  })
  test('one that goes begins nothing any more', () => {
    const begun = applyEdit(named, { kind: 'changeState', id: 'a', change: { begins: 'd7' } })
    const begins = (id: string) => applyEdit(begun, { kind: 'removeDevice', id }).needs.states![0]!.begins
    expect([begins('d1'), begins('d7')]).toEqual(['d7', undefined])
  })
  test('one that goes leaves none behind; one taken apart keeps its own in each', () => {
    expect(modes({ kind: 'removeDevice', id: 'd7' })).toEqual([{ d1: 'on' }, undefined])
    expect(modes({ kind: 'splitDevice', id: 'd1' })).toEqual([
      { d1: 'on', d7: 'off', d8: 'on', d9: 'on' },
      undefined,
    ])
  })
})
