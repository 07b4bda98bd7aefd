// Regulators and devices begun by pasted tables. Every expectation is read off the text by hand.

import { type Device, FaultyFile, type Part, readPart, type Regulator } from '../parts'
import { type Answers, deviceFrom, readLimits, readTable, regulatorFrom } from '.'

const head = { id: 'mine', name: 'Mine', sheet: 'a sheet' }
const part = <P extends Part>(file: Record<string, unknown>): P => {
  try {
    return readPart(file, 'mine') as P
  } catch (error) {
    throw error instanceof FaultyFile ? new Error(JSON.stringify(error.faults)) : error
  }
}

const legs = 'Pin\tName\tDescription\n1\tIN\tUnregulated input\n2\tGND\tGround\n3\tOUT\tRegulated output'
const linear = `Absolute maximum ratings (table 1)
Parameter\tSymbol\tMin\tMax\tUnit
Input voltage\tVIN\t-0.3\t16\tV
Junction temperature\tTJ\t\t150\t°C
Storage temperature\tTSTG\t-55\t150\t°C
Recommended operating conditions (table 2)
Parameter\tSymbol\tMin\tMax\tUnit
Input voltage\tVIN\t3.6\t15\tV
Output current\tIOUT\t0\t500\tmA
Junction temperature\tTJ\t-40\t125\t°C
Electrical characteristics (table 3)
Parameter\tSymbol\tConditions\tMin\tTyp\tMax\tUnit
Output voltage\tVOUT\tIOUT = 10 mA\t3.234\t3.3\t3.366\tV
Dropout voltage\tVDO\tIOUT = 100 mA\t\t120\t200\tmV
\t\tIOUT = 500 mA\t\t350\t600\tmV
Quiescent current\tIQ\tIOUT = 0\t\t55\t95\tµA
Ground current\tIGND\tIOUT = 500 mA\t\t2\t4\tmA
Line regulation\t\tVIN = 4 V to 15 V\t\t2\t10\tmV
Thermal resistance, junction to ambient\tRθJA\t\t\t92\t\t°C/W
Input capacitor\tCIN\t\t1\t\t\tµF
Output capacitor\tCOUT\t\t2.2\t10\t\tµF
Output capacitor ESR\t\t\t5\t\t500\tmΩ`

describe('a regulator', () => {
  const made = (text: string, answers: Answers = {}, table = legs) => {
    const limits = readLimits(text, {}, 'regulator')
    return { limits, ...regulatorFrom(readTable(table), limits.facts, head, answers) }
  }
  test('linear, from a table of legs and one of characteristics', () => {
    const { limits, file, questions, missing, notes, says } = made(linear)
    expect([limits.questions, limits.open, missing]).toEqual([[], [], []])
    expect(limits.beside).toEqual(['Storage temperature TSTG', 'Ground current IGND', 'Line regulation'])
    expect(questions.map((q) => [q.id, q.guess])).toEqual([['topology', 'linear']])
    const regulator = part<Regulator>(file)
    expect(regulator).toMatchObject({
      topology: 'linear',
      output: { min: 3.234, typ: 3.3, max: 3.366, kind: 'guaranteed', source: 'table 3' },
      current: { max: 0.5, source: 'table 2' },
      inputRecommended: { min: 3.6, max: 15, kind: 'recommended' },
      inputAbsolute: { min: -0.3, max: 16, kind: 'absolute' },
      dropout: [
        { current: 0.1, voltage: { typ: 0.12, max: 0.2 } },
        { current: 0.5, voltage: { typ: 0.35, max: 0.6 } },
      ],
      // At no load: the 4 mA at full load are not what eats a sleeping battery.
      quiescent: { typ: 55e-6, max: 95e-6 },
      // 125 °C is what it is made for; 150 °C breaks it and stays beside that.
      junctionMax: { max: 125, kind: 'recommended', others: [{ max: 150, kind: 'absolute' }] },
      // At least 1 µF of one with 20 % less: 1.25 µF, and 1.5 µF is the next in E6.
      inputCapacitor: 1.5e-6,
      outputCapacitor: { capacitance: 10e-6, esr: { min: 5e-3, max: 0.5 } },
      package: { style: 'upright', legs: 3, pitch: 2.54e-3, thermalResistance: { typ: 92 } },
      legs: [
        { leg: 1, role: 'in', name: 'IN' },
        { leg: 2, role: 'ground', name: 'GND' },
        { leg: 3, role: 'out', name: 'OUT' },
      ],
    })
    expect(notes.join(' ')).toMatch(/2\.54\smm apart/)
    expect(says).toEqual({ IN: 'its input', GND: 'ground', OUT: 'its output' })
    // Numbers that the file has no place for are told beside their fact.
    expect(limits.facts.find((f) => f.path === 'current')!.words).toBe('current it gives; min 0 mA')
  })
  test('switching, in another language’s notation; an enable is left to the builder, and says so', () => {
    const text = `Electrical characteristics
Parameter;Bedingung;Min;Typ;Max;Einheit
Input voltage;;4,5;;17;V
Output voltage;;;5,0;;V
Output voltage accuracy;;;±2;;%
Output current;;;;2;A
Quiescent current;no load;;0,3;0,6;mA
Efficiency;IOUT = 1 A;88;92;;%
Efficiency;IOUT = 10 mA;;75;;%
Output ripple;;;20;45;mV
Switching frequency;;;500;;kHz
Junction temperature;;;;125;°C`
    const six = 'Pin Name\n1 VIN\n2 GND\n3 EN\n4 FB\n5 SW\n6 VOUT'
    const { file, questions, missing, notes } = made(text, {}, six)
    expect(questions.find((q) => q.id === 'topology')?.guess).toBe('down')
    expect(file).toMatchObject({
      topology: 'switching',
      // 2 % of 5 V is 100 mV.
      output: { min: 4.9, typ: 5, max: 5.1 },
      efficiency: [
        { current: 0.01, share: 0.75 },
        { current: 1, share: 0.88 },
      ],
      ripple: { typ: 0.02, max: 0.045 },
    })
    expect(missing).toEqual([
      'the input that breaks it',
      'the capacitor at its input',
      'the capacitor at its output',
      'the voltage it needs above its output at full current',
    ])
    expect(notes.join('\n')).toMatch(/EN is joined by no step[\s\S]*FB sets its output by resistors/)
    const told = made(
      text,
      {
        topology: 'down',
        'fact:inputAbsolute': '20 V',
        'fact:inputCapacitor': '22 µF',
        'fact:outputCapacitor.capacitance': '47u',
        'fact:dropout': '1.2 V',
      },
      six,
    )
    expect([told.missing, told.questions]).toEqual([[], []])
    expect(part<Regulator>(told.file)).toMatchObject({
      inputAbsolute: { max: 20, kind: 'absolute' },
      inputCapacitor: 22e-6,
      outputCapacitor: { capacitance: 47e-6 },
      dropout: [{ current: 2, voltage: { max: 1.2 } }],
      package: { style: 'two-sided', legs: 6, pitch: 0.95e-3 },
    })
  })
  test('what was typed and can’t be read is asked again, and what is put off is missing', () => {
    const ask = (answer: string) => made('Output voltage: 5 V', { 'fact:current': answer })
    expect(ask('lots').questions.find((q) => q.id === 'fact:current')?.why).toContain('“lots” can’t be read')
    expect(ask('5 V').questions.find((q) => q.id === 'fact:current')).toBeDefined()
    const later = ask('later')
    expect(later.questions.find((q) => q.id === 'fact:current')).toBeUndefined()
    expect(later.missing).toContain('the most current it gives')
    expect(made('', { 'fact:inputRecommended': '4 V' }).questions.map((q) => q.id)).toContain(
      'fact:inputRecommended',
    )
  })
  test('a heat spreader is no leg in the row; a leg that no name tells is asked', () => {
    const { file, notes, questions } = made(linear, {}, `${legs}\n4\tTAB\tGround, heat spreader`)
    expect((file.legs as unknown[]).length).toBe(3)
    expect(notes.join()).toContain('TAB carries heat')
    expect(questions.map((q) => q.id)).toEqual(['topology'])
    const odd = made(linear, {}, 'Pin\tName\n1\tIN\n2\tGND\n3\tOUT\n4\tXY')
    expect(odd.questions.map((q) => q.id)).toContain('role:XY')
    expect(made(linear, {}, 'Pin\tName\n1\tIN\n2\tXX\n3\tOUT').notes.join()).toContain('No leg is ground')
    expect(made(linear, {}, 'Pin\tName\n1\tIN\n2\tGND\n3\tXX').missing).toEqual(['which leg is its output'])
  })
  test('two drop-outs at one current: the worse; points by rising current', () => {
    const rows = (...drops: string[]) =>
      ['Parameter\tConditions\tTyp\tMax\tUnit', ...drops.map((d) => `Dropout voltage\t${d}\tV`)].join('\n')
    const { file } = made(
      rows('IOUT = 1 A, 25 °C\t0.9\t1.1', 'IOUT = 1 A, 85 °C\t1.0\t1.3', 'IOUT = 100 mA\t0.1\t0.2'),
    )
    expect(file.dropout).toMatchObject([
      { current: 0.1, voltage: { max: 0.2 } },
      { current: 1, voltage: { typ: 1, max: 1.3 } },
    ])
  })
})

describe('a device', () => {
  const made = (table: string, text: string, answers: Answers = {}) => {
    const limits = readLimits(text, {}, 'device')
    return { limits, ...deviceFrom(readTable(table), limits.facts, head, answers, `${table}\n${text}`) }
  }
  const sensor = `Terminal;Name;Type;Function
1;VDD;Power;Supply voltage
2;SDA;I/O;Serial data, open drain
3;SCL;I;Serial clock
4;GND;Power;Ground
5;INT;O;Data ready, open drain
6;ADDR;I;Address select`
  const characteristics = `Absolute maximum ratings (table 2)
Parameter\tMin\tMax\tUnit
Supply voltage\t-0.3\t4.0\tV
Storage temperature\t-40\t125\t°C
Electrical characteristics (table 3)
Parameter\tConditions\tMin\tTyp\tMax\tUnit
Supply voltage VDD\t\t1.8\t\t3.6\tV
Supply current, measuring\t\t\t0.4\t0.7\tmA
Standby current\t\t\t0.1\t1\tµA
SCL clock frequency\t\t\t\t400\tkHz
Input high level\t\t0.75 × VDD\t\t\tV
Input low level\t\t\t\t0.25 × VDD\tV
Output low level\tIOL = 6 mA\t\t\t0.4\tV
Relative humidity accuracy\t\t\t±2\t\t%
I2C address 0x88 for writing, 0x89 for reading`
  test('on a two-wire bus: wiring, currents from rest to work, address, speed', () => {
    const { limits, file, questions, notes } = made(sensor, characteristics)
    expect(limits.questions).toEqual([])
    expect(limits.beside).toEqual(['Storage temperature', 'Relative humidity accuracy'])
    // 0x88 and 0x89 are 0x44 with its read and write bit.
    expect(questions.map((q) => [q.id, q.guess])).toEqual([
      ['use:ADDR', 'none'],
      ['address', '0x44'],
    ])
    const device = part<Device>(file)
    expect(device).toMatchObject({
      supply: { min: 1.8, max: 3.6, kind: 'recommended' },
      supplyAbsolute: { max: 4, kind: 'absolute' },
      terminals: [
        { id: 'VDD', role: 'supply' },
        { id: 'SDA', role: 'signal' },
        { id: 'SCL', role: 'signal' },
        { id: 'GND', role: 'ground' },
        { id: 'INT', role: 'signal' },
        { id: 'ADDR', role: 'passive' },
      ],
      modes: [{ current: { typ: 1e-7, max: 1e-6 } }, { current: { typ: 4e-4, max: 7e-4 } }],
    })
    expect(device.wirings).toHaveLength(1)
    const [wiring] = device.wirings
    expect(wiring).toMatchObject({ id: 'i2c', address: 0x44, busSpeed: { max: 400e3 } })
    expect(wiring!.signals.map((s) => [s.terminal, s.kind, s.bus, s.line])).toEqual([
      ['SDA', 'bus', 'i2c', 'SDA'],
      ['SCL', 'bus', 'i2c', 'SCL'],
      ['INT', 'interrupt', undefined, undefined],
    ])
    expect(wiring!.signals[0]!.electrical).toMatchObject({ kind: 'open-drain', sinkCurrent: { min: 6e-3 } })
    expect(notes.join('\n')).toMatch(/ADDR has no line to the chip/)
  })
  test('two buses on the same terminals are two wirings; levels come from its table', () => {
    const dual = `Pin Name Function
1 CSB Chip select
2 SCK/SCL Serial clock
3 SDI/SDA Serial data in
4 SDO Serial data out
5 VDD Supply
6 GND Ground
7 DRDY Data ready`
    const { file, notes, says } = made(dual, characteristics, { address: '0x76' })
    expect([says.SDI, says.CSB]).toEqual(['two-wire bus, SPI bus', 'SPI bus'])
    const { wirings } = part<Device>(file)
    const told = wirings.map((w) => [w.id, w.signals.map((s) => `${s.terminal} ${s.line ?? s.kind}`)])
    expect(told).toEqual([
      ['i2c', ['SCK SCL', 'SDI SDA', 'DRDY interrupt']],
      ['spi', ['CSB digital-out', 'SCK SCK', 'SDI MOSI', 'SDO MISO', 'DRDY interrupt']],
    ])
    expect(wirings.map((w) => w.address)).toEqual([0x76, undefined])
    // Not selected by chance while the program doesn’t run yet.
    expect(wirings[1]!.signals.filter((s) => s.quiet).map((s) => s.terminal)).toEqual(['CSB'])
    expect(wirings[1]!.signals[0]!.electrical).toMatchObject({
      kind: 'logic-input',
      high: { factor: 0.75 },
      low: { factor: 0.25 },
    })
    expect(notes.join('\n')).toContain('On the two-wire bus CSB, SDO have no line: tie them')
  })
  test('a serial one: its sender is on the chip’s receiver; one without a bus is asked', () => {
    const serial = part<Device>(made('1 VCC\n2 GND\n3 TXD\n4 RXD', '').file)
    expect(serial.wirings[0]!.signals.map((s) => [s.terminal, s.line, s.electrical.kind])).toEqual([
      ['TXD', 'RX', 'logic-output'],
      ['RXD', 'TX', 'logic-input'],
    ])
    const plain = (answers: Answers) => made('1 VCC\n2 GND\n3 AOUT\n4 EN', '', answers)
    expect(plain({}).questions.map((q) => [q.id, q.guess])).toEqual([
      ['use:AOUT', 'analog-in'],
      ['use:EN', 'digital-out'],
    ])
    expect(made('1 VCC\n2 GND\n3 OUT analog voltage', '').questions[0]?.guess).toBe('analog-in')
    const { wirings } = part<Device>(plain({ 'use:AOUT': 'analog-in', 'use:EN': 'digital-out' }).file)
    expect(wirings[0]!.signals.map((s) => [s.terminal, s.kind, s.electrical.kind])).toEqual([
      ['AOUT', 'analog-in', 'analog'],
      ['EN', 'digital-out', 'logic-input'],
    ])
  })
  test('terminals without numbers, what they are beside them', () => {
    const read = readTable('VCC  supply 5 V\nGND  ground\nOUT  analog output')
    expect(read.legs.map((l) => [l.id, l.type])).toEqual([
      ['VCC', 'supply'],
      ['GND', 'ground'],
      ['OUT', 'io'],
    ])
    expect(read.account.open).toEqual([])
  })
  test('one address for writing and the next for reading are half of it, small ones too', () => {
    const guess = (line: string) => made(sensor, line).questions.find((q) => q.id === 'address')?.guess
    expect(guess('Address: 0x40 (write), 0x41 (read)')).toBe('0x20')
    expect(guess('Address 0x40 or 0x41 by its address leg')).toBe('0x40')
  })
  test('an open drain is asked for a pull-up where its row says so; where it doesn’t, that is told', () => {
    const ends = (table: string) => {
      const { file, notes } = made(table, '')
      const signals = part<Device>(file).wirings[0]!.signals
      return [
        signals.find((s) => s.terminal === 'INT')!.electrical,
        notes.some((n) => /INT is taken to drive/.test(n)),
      ]
    }
    expect(ends(sensor)).toEqual([expect.objectContaining({ openDrain: true }), false])
    const [plain, told] = ends(sensor.replace('Data ready, open drain', 'Data ready'))
    expect(plain).not.toHaveProperty('openDrain', true)
    expect(told).toBe(true)
  })
  test('what breaks it is no mode; two terminals of one name stay two', () => {
    const text = 'Absolute maximum ratings\nParameter\tMax\tUnit\nSupply current\t50\tmA'
    expect(made(sensor, text).file.modes).toEqual([])
    const relay = part<Device>(made('1 VCC\n2 GND\n3 OUT\n4 OUT', '', { 'use:OUT': 'none' }).file)
    expect(relay.terminals.map((t) => t.id)).toEqual(['VCC', 'GND', 'OUT', 'OUT/2'])
  })
  test('an address in a row of its own is a fact', () => {
    const { limits, questions } = made(sensor, 'Supply voltage: 1.8 V to 3.6 V\nI2C address: 0x5c')
    expect(limits.facts.map((f) => [f.path, f.value]).at(-1)).toEqual(['address', 0x5c])
    expect(questions.find((q) => q.id === 'address')?.guess).toBe('0x5c')
  })
  test('an address that is none is asked again; one that is not known says what that means', () => {
    const asked = (address: string) =>
      made(sensor, '', { address, 'use:ADDR': 'none' }).questions.map((q) => q.why)
    expect(asked('maybe').join()).toContain('“maybe” is no address')
    expect(asked('unknown')).toEqual([])
    expect(asked('1000100')).toEqual([])
  })
})
