// Single names as sheets write them: functions, legs, ranges; and that every cell of any text knows its place.

import fc from 'fast-check'
import { gridOf, type Separator } from '.'
import { hintOf, kindBySignals, readToken, signalFor } from './functions'
import { legsIn } from './legs'
import { nameIn, namesInRange, typeByName, typeIn } from './names'

const tokens: [text: string, wanted: string | undefined, heading?: string][] = [
  ['TMR1_CH2', 'TMR1.CH2 timer'],
  ['TMR1_CH2N', 'TMR1.CH2N timer'],
  ['OC1A', 'TMR1.CHA timer'],
  ['PWM3', 'PWM.CH3 timer'],
  ['TMR2_ETR', 'TMR2.ETR other'],
  ['UART1_TX', 'UART1.TX uart'],
  ['TXD0', 'UART0.TX uart'],
  ['rx', 'UART.RX uart'],
  ['I2C2_SCL', 'I2C2.SCL i2c'],
  ['SDA1', 'I2C1.SDA i2c'],
  ['SPI1_SCLK', 'SPI1.SCK spi'],
  ['SDO', 'SPI.MOSI spi'],
  ['SPI2_NSS', 'SPI2.SS spi'],
  ['ADC2_CH5', 'ADC2.IN5 converter'],
  ['ADC12', 'ADC.IN12 converter'],
  ['AIN3', 'ADC.IN3 converter'],
  ['DAC1_OUT2', 'DAC1.OUT2 dac'],
  ['CANTX', 'CAN.TX can'],
  ['TOUCH5', 'TOUCH.T5 touch'],
  ['PCINT16', 'PCINT.INT16 interrupt'],
  ['WKUP1', 'WKUP.WK1 wake'],
  ['USB_DP', 'USB.DP usb'],
  ['XTAL1', 'OSC.XTAL1 oscillator'],
  ['SWDIO', 'DEBUG.SWDIO debug'],
  ['QX7', 'QX.QX7 undefined'],
  ['LTM0_CH1', 'LTM0.CH1 undefined'],
  ['RESET', 'reset'],
  ['nRST', 'reset'],
  ['GPIO', 'plain'],
  ['TMR1_CH2(1)', 'TMR1.CH2 timer'],
  ['~RESET', 'reset'],
  ['-', undefined],
  ['shared', undefined],
  ['CH5', 'ADC.IN5 converter', 'ADC channel'],
  ['5', 'INT.INT5 interrupt', 'External interrupt'],
  ['TX', 'UART2.TX uart', 'UART2'],
  ['TB3', 'TB.CH3 timer', 'Timers'],
]
test.each(tokens.map(([text, wanted, heading]) => [text, wanted, heading ?? ''] as const))(
  '%s is %s %s',
  (text, wanted, heading) => {
    const read = readToken(text, heading ? hintOf(heading) : {})
    const found =
      read && 'function' in read
        ? `${read.function.unit}.${read.function.signal} ${read.function.kind}`
        : read?.word
    expect(found).toBe(wanted)
  },
)

test.each<[string[], string | undefined]>([
  [['TX', 'RX', 'CTS'], 'uart'],
  [['SDA', 'SCL'], 'i2c'],
  [['SCK', 'MOSI'], 'spi'],
  [['CH1', 'CH2', 'CH2N'], 'timer'],
  [Array.from({ length: 10 }, (_, i) => `CH${i}`), 'converter'],
  [['IN3', 'IN4'], 'converter'],
  [['PAD0', 'PAD1'], undefined],
  [['TX'], undefined],
])('a family with %s is a %s', (signals, kind) => {
  expect(kindBySignals(signals)).toBe(kind)
})
test('an answer gives the channels their usual names', () => {
  const f = { unit: 'TB', signal: 'TB3', family: 'TB', kind: undefined }
  expect([signalFor('timer', f), signalFor('converter', f), signalFor('other', f)]).toEqual([
    'CH3',
    'IN3',
    'TB3',
  ])
})

test.each<[string, number[] | undefined]>([
  ['12', [12]],
  ['1, 24, 36', [1, 24, 36]],
  ['1–4', [1, 2, 3, 4]],
  ['4-1', [4, 3, 2, 1]],
  ['7 to 9, 12', [7, 8, 9, 12]],
  ['#5', [5]],
  ['Pin 3', [3]],
  ['—', []],
  ['n/a', []],
  ['A1', undefined],
  ['3.3V', undefined],
  ['1-5000', undefined],
])('legs in “%s”', (text, legs) => {
  expect(legsIn(text)).toEqual(legs)
})

test.each<[string, string | undefined, string | undefined]>([
  ['PB3 (DOUT/TB1/INT3)', 'PB3', 'DOUT TB1 INT3'],
  ['PA9 | TMR1_CH2', 'PA9', 'TMR1_CH2'],
  ['ADC0/PB0', 'PB0', 'ADC0'],
  ['PA0¹', 'PA0', ''],
  ['RESET#', 'RESET', ''],
  ['N.C.', 'NC', ''],
  ['???', undefined, undefined],
])('the name in “%s”', (text, id, others) => {
  const name = nameIn(text)
  expect([name?.id, name?.others.map((o) => o.text).join(' ')]).toEqual([id, others])
})
test('ranges of names, both ways', () => {
  expect(namesInRange('PA0-PA3')).toEqual(['PA0', 'PA1', 'PA2', 'PA3'])
  expect(namesInRange('PD7–PD5')).toEqual(['PD7', 'PD6', 'PD5'])
  expect(namesInRange('PA0')).toBeUndefined()
})
test.each<[string, string | undefined]>([
  ['VDD_IO', 'supply'],
  ['3V3', 'supply'],
  ['AVCC', 'supply'],
  ['VSSA', 'ground'],
  ['EP', 'ground'],
  ['AREF', 'reference'],
  ['VCAP1', 'reference'],
  ['ANT', 'radio'],
  ['DNC', 'none'],
  ['PB3', undefined],
])('%s is %s by its name', (name, type) => {
  expect(typeByName(name)).toBe(type)
})
test('types as sheets write them', () => {
  expect(['I/O', 'PWR', 'Input', 'A', 'nonsense'].map((t) => typeIn(t))).toEqual([
    'io',
    'supply',
    'input',
    'analog',
    undefined,
  ])
})

test('every cell of any text stands where it says it does', () => {
  const cell = fc.stringMatching(/^[A-Z0-9_/.-]{0,8}$/)
  const separators: [Separator, string][] = [
    ['tab', '\t'],
    ['semicolon', ';'],
    ['comma', ','],
    ['gaps', '   '],
    ['words', ' '],
  ]
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 1, maxLength: 6 }), { maxLength: 8 }),
      fc.constantFrom(...separators),
      (rows, [name, mark]) => {
        const text = rows.map((r) => r.join(mark)).join('\n')
        const lines = text.split('\n')
        for (const row of gridOf(text, name).rows)
          for (const c of row.cells) expect(lines[c.line - 1]!.slice(c.from, c.to)).toBe(c.text)
      },
    ),
  )
})
