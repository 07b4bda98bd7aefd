// One function as a sheet writes it, TMR1_CH2 or SDA1, as a unit, one of its signals and what kind of unit it is. What
// is not known by its form is learned: from the signals its family has, the column's heading, or the builder.

import type { UnitKind } from '../parts'
import { remember } from './remember'

export interface NamedFunction {
  unit: string
  signal: string
  /** The unit's name without its number: what an answer is learned for. */
  family: string
  /** Undefined where its form doesn't tell. */
  kind: UnitKind | undefined
}
/** A word that says something about the leg itself. */
export type LegWord = 'reset' | 'debug' | 'oscillator' | 'plain'
export type ReadToken = { function: NamedFunction; word?: LegWord } | { word: LegWord } | undefined

interface Form {
  kind: UnitKind
  /** Named groups: `u` unit without number, `n` its number, `m` a number behind the signal, `s` signal. */
  pattern: RegExp
  /** The unit's name where the form has none. */
  unit?: string
  signal?: (s: string) => string
  word?: LegWord
}

const canonical: Record<string, string> = {
  TXD: 'TX',
  RXD: 'RX',
  TXO: 'TX',
  RXI: 'RX',
  SCLK: 'SCK',
  CLK: 'SCK',
  SDO: 'MOSI',
  DO: 'MOSI',
  COPI: 'MOSI',
  PICO: 'MOSI',
  SIMO: 'MOSI',
  SDI: 'MISO',
  DI: 'MISO',
  CIPO: 'MISO',
  POCI: 'MISO',
  SOMI: 'MISO',
  NSS: 'SS',
  CS: 'SS',
  SEL: 'SS',
}
const usual = (s: string) => canonical[s] ?? s
const channel = (letters: string) => (s: string) => (/^\d/.test(s) ? `${letters}${s}` : s)

const forms: readonly Form[] = [
  {
    kind: 'uart',
    pattern: /^(?<u>LPUART|UART|USART|SERIAL|SER|SCI|LIN|U)(?<n>\d*)[_.:]?(?<s>TXD?|RXD?|CTS|RTS|DE|CK|XCK)$/,
  },
  { kind: 'uart', pattern: /^(?<s>TXD|RXD|TX|RX|CTS|RTS)(?<m>\d*)$/, unit: 'UART' },
  { kind: 'i2c', pattern: /^(?<u>I2C|IIC|TWI|TWO|SMB)(?<n>\d*)[_.:]?(?<s>SDA|SCL|SMBA)$/ },
  { kind: 'i2c', pattern: /^(?<s>SDA|SCL)(?<m>\d*)$/, unit: 'I2C' },
  {
    kind: 'spi',
    pattern:
      /^(?<u>SPI|QSPI|SSP|SSI)(?<n>\d*)[_.:]?(?<s>SCK|SCLK|CLK|MOSI|MISO|SDO|SDI|DO|DI|COPI|CIPO|PICO|POCI|SIMO|SOMI|NSS|SS|CS|SEL)(?<x>\d?)$/,
  },
  {
    kind: 'spi',
    pattern: /^(?<s>SCK|SCLK|MOSI|MISO|SDO|SDI|COPI|CIPO|PICO|POCI|SS|NSS)(?<m>\d*)$/,
    unit: 'SPI',
  },
  { kind: 'can', pattern: /^(?<u>FDCAN|CAN)(?<n>\d*)[_.:]?(?<s>TXD?|RXD?|H|L)$/ },
  { kind: 'can', pattern: /^(?<s>TX|RX)CAN(?<m>\d*)$/, unit: 'CAN' },
  { kind: 'usb', pattern: /^(?<u>USB)(?<n>\d*)[_.:]?(?<s>DP|DM|D\+|D-|VBUS|ID|P|N)$/ },
  { kind: 'usb', pattern: /^(?<s>D\+|D-)$/, unit: 'USB' },
  {
    kind: 'converter',
    pattern: /^(?<u>SADC|ADC|ADCIN|AD|AN)(?<n>\d*)[_.:](?:CH|IN|INP|AIN|A)?(?<s>\d{1,2})$/,
    signal: channel('IN'),
  },
  { kind: 'converter', pattern: /^(?<u>ADC)(?<n>\d*)(?:CH|IN)(?<s>\d{1,2})$/, signal: channel('IN') },
  {
    kind: 'converter',
    pattern: /^(?:ADC|AIN|ADCIN|AN|AD)(?<s>\d{1,2})$/,
    unit: 'ADC',
    signal: channel('IN'),
  },
  { kind: 'dac', pattern: /^(?<u>DAC)(?<n>\d*)[_.:]?(?:OUT|CH)?(?<s>\d?)$/, signal: (s) => `OUT${s}` },
  {
    kind: 'timer',
    pattern:
      /^(?<u>TIMER|TMR|TIM|TM|TC|PWM|SLOPE)(?<n>\d*[A-Z]?)[_.:](?<s>(?:CH|OC|WO|OUT|C)?\d{1,2}N?|CH[A-H]N?|[A-D]N?)$/,
    signal: channel('CH'),
  },
  { kind: 'timer', pattern: /^(?<u>TIMER|TMR|TIM|TM)(?<n>\d{1,2})(?<s>CH\d{1,2}N?)$/ },
  { kind: 'timer', pattern: /^OC(?<n>\d)(?<s>[A-D])$/, unit: 'TMR', signal: (s) => `CH${s}` },
  { kind: 'timer', pattern: /^PWM(?<s>\d{1,2}N?)$/, unit: 'PWM', signal: channel('CH') },
  {
    kind: 'other',
    pattern: /^(?<u>TIMER|TMR|TIM|TM|TC)(?<n>\d*)[_.:](?<s>ETR|EXT|CLK|BKIN|BRK|CK|TRIG|IN)$/,
  },
  { kind: 'touch', pattern: /^(?<u>TOUCH|TCH|TSC|CAPT)[_.:]?(?<s>\d{1,2})$/, signal: channel('T') },
  {
    kind: 'interrupt',
    pattern: /^(?<u>PCINT|EINT|EXTINT|EXTI|INT|IRQ|KBI)[_.:]?(?<s>\d{1,2})$/,
    signal: channel('INT'),
  },
  { kind: 'wake', pattern: /^(?<u>WKUP|WAKE|WUP|WAKEUP)[_.:]?(?<s>\d{0,2})$/, signal: (s) => `WK${s}` },
  {
    kind: 'comparator',
    pattern: /^(?<u>ACMP|COMP|CMP|AC)(?<n>\d*)[_.:](?<s>INP\d?|INM\d?|IN\+|IN-|OUT|P\d?|N\d?|IN\d)$/,
  },
  { kind: 'comparator', pattern: /^AIN(?<s>\+|-)$/, unit: 'CMP' },
  {
    kind: 'oscillator',
    pattern:
      /^(?<s>XTAL_?[12NP]?|XTAL_?IN|XTAL_?OUT|XIN|XOUT|X[12IO]|OSC(?:32)?_?(?:IN|OUT)?[12]?|XIN32|XOUT32|LFX[IO]|HFX[IO])$/,
    unit: 'OSC',
    word: 'oscillator',
  },
  {
    kind: 'debug',
    pattern: /^(?:J(?:TAG)?_?)?(?<s>SWDIO|SWD_?CLK|SWCLK|SWCK|SWO|SWD|TDI|TDO|TMS|TCK|TRST|NTRST|DBGD|DBGC)$/,
    unit: 'DEBUG',
    word: 'debug',
  },
]

const plainWord = /^(?:GPIO|I\/?O|DIGITAL|PORT)$/
export const resetWord =
  /^(?:(?:N_?)?RE?SE?T(?:_?[NB])?|(?:N_?)?RST(?:_?[NB])?|XRES|N?MRST|MCLR|POR|CHIP_?EN|EN)$/

/** Without footnote marks, bars over a name, and what surrounds it. Upper case. */
export const bareName = (text: string): string => (/^\w+$/.test(text) ? text : withoutMarks(text))
const withoutMarks = (text: string): string =>
  text
    .replace(/[¹²³⁴⁵⁶⁷⁸⁹⁰†‡§*]+/g, '')
    .replace(/\s*[([]\d{1,2}[)\]]$/, '')
    .replace(/^[~/!\\]+|#+$/g, '')
    .replace(/^[`'"“”]+|[`'"“”.:]+$/g, '')
    .trim()

/** What a heading says about a whole column: the kind, and the unit where the cells name only signals. */
export interface ColumnHint {
  kind?: UnitKind
  unit?: string
}

const headingKinds: readonly (readonly [RegExp, UnitKind])[] = [
  [/\b(?:adc|analog(?:ue)? in\w*|converter|analog(?:ue)?)\b/i, 'converter'],
  [/\b(?:dac|analog(?:ue)? out\w*)\b/i, 'dac'],
  [/\b(?:timers?|pwm|capture|compare)\b/i, 'timer'],
  [/\b(?:u(?:s)?art|serial)\b/i, 'uart'],
  [/\b(?:i2c|twi|two[- ]wire)\b/i, 'i2c'],
  [/\bspi\b/i, 'spi'],
  [/\bcan\b/i, 'can'],
  [/\busb\b/i, 'usb'],
  [/\b(?:interrupts?|int)\b/i, 'interrupt'],
  [/\btouch\b/i, 'touch'],
  [/\bwake/i, 'wake'],
  [/\bcomparators?\b/i, 'comparator'],
]
export const hintOf = (heading: string): ColumnHint => {
  const kinds = headingKinds
    .filter(([pattern]) => pattern.test(heading.replace(/\d+/g, '')))
    .map(([, kind]) => kind)
  const one = kinds.length === 1 ? kinds[0] : undefined
  const unit = /^[A-Z][A-Z0-9]*\d$/.exec(heading.trim())?.[0]
  return { kind: one, unit: one ? unit : undefined }
}

const hintedUnit: Partial<Record<UnitKind, { unit: string; letters: string }>> = {
  converter: { unit: 'ADC', letters: 'IN' },
  dac: { unit: 'DAC', letters: 'OUT' },
  timer: { unit: 'PWM', letters: 'CH' },
  interrupt: { unit: 'INT', letters: 'INT' },
  touch: { unit: 'TOUCH', letters: 'T' },
  wake: { unit: 'WAKE', letters: 'WK' },
  uart: { unit: 'UART', letters: '' },
  i2c: { unit: 'I2C', letters: '' },
  spi: { unit: 'SPI', letters: '' },
}

const familyOf = (unit: string) => unit.replace(/\d+[A-Z]?$/, '') || unit

const byForm = (name: string): ReadToken => {
  for (const form of forms) {
    const groups = form.pattern.exec(name)?.groups
    if (!groups) continue
    const unit = `${groups.u ?? form.unit ?? ''}${groups.n ?? ''}${groups.m ?? ''}`
    const raw = `${groups.s ?? ''}${groups.x ?? ''}`
    const signal = form.signal ? form.signal(raw) : form.kind === 'debug' ? raw : usual(raw)
    return { function: { unit, signal, family: familyOf(unit), kind: form.kind }, word: form.word }
  }
  return undefined
}

/** In a column whose heading says what it holds: `5`, `A5` or `CH5` is a channel, `TX` a signal of the heading's unit. */
const byHint = (name: string, { kind, unit }: ColumnHint): ReadToken => {
  const usualUnit = kind && hintedUnit[kind]
  if (!usualUnit) return undefined
  const number = /^(CH|C|A|AIN|IN|INT|EINT|T|WK|OUT)?(\d{1,2})$/.exec(name)?.slice(1)
  if (number && usualUnit.letters && (kind !== 'timer' || !/^[AIT]/.test(number[0] ?? '')))
    return { function: named(unit ?? usualUnit.unit, `${usualUnit.letters}${number[1]}`, kind) }
  if (unit && /^[A-Z+-]{1,5}\d?$/.test(name)) return { function: named(unit, usual(name), kind) }
  return undefined
}
const named = (unit: string, signal: string, kind: UnitKind | undefined): NamedFunction => ({
  unit,
  signal,
  family: familyOf(unit),
  kind,
})

const readAnew = (text: string, hint: ColumnHint = {}): ReadToken => {
  const name = bareName(text).toUpperCase()
  // A word of a sentence, and no name.
  if (/^[A-Z]?[a-z]{3,}$/.test(bareName(text)) || /^\p{L}[-.]?$/u.test(name)) return undefined
  if (!/^[A-Z0-9][A-Z0-9_.:+-]*$/.test(name) || /^[-–—.]+$/.test(name)) return undefined
  if (plainWord.test(name)) return { word: 'plain' }
  if (resetWord.test(name)) return { word: 'reset' }
  if (/^[A-Z]?[a-z]{2,}(?:-[a-z]{2,})+$/.test(bareName(text))) return undefined
  const hinted = hint.unit ? byHint(name, hint) : undefined
  const known = hinted ?? byForm(name) ?? byHint(name, hint)
  if (known) return known
  const parted = /^([A-Z][A-Z0-9]*?)(\d*)[_.:]([A-Z0-9+-][A-Z0-9_+-]*)$/.exec(name)
  if (parted)
    return {
      function: {
        unit: `${parted[1]}${parted[2]}`,
        signal: usual(parted[3]!.replace(/_/g, '-')),
        family: parted[1]!,
        kind: hint.kind,
      },
    }
  const numbered = /^([A-Z]{1,8})(\d{1,3})([A-D])?$/.exec(name)
  if (numbered) {
    const bare = named(numbered[1]!, name, hint.kind)
    return { function: hint.kind ? { ...bare, signal: signalFor(hint.kind, bare) } : bare }
  }
  // Letters alone, not all of them capitals, are a word: in, of, Ein-.
  if (/^\d+$/.test(name) || /^(?=.*[a-z])[A-Za-z]+(?:-[A-Za-z]+)*[-.]?$/.test(bareName(text)))
    return undefined
  return { function: { unit: name, signal: name, family: name, kind: hint.kind } }
}

/** Reads one token. Undefined where it is no name of a function at all: a dash, a sentence. */
export const readToken: (text: string, hint?: ColumnHint) => ReadToken = remember(
  readAnew,
  (text, hint) => `${hint?.kind ?? ''} ${hint?.unit ?? ''} ${text}`,
)

const lines: readonly (readonly [UnitKind, RegExp])[] = [
  ['uart', /^(?:TX|RX)$/],
  ['i2c', /^(?:SDA|SCL)$/],
  ['spi', /^(?:MOSI|MISO|SCK)$/],
  ['usb', /^(?:DP|DM|D\+|D-)$/],
]

/** What kind a family is, by the signals it has: undefined where they don't tell. */
export const kindBySignals = (signals: readonly string[]): UnitKind | undefined => {
  for (const [kind, pattern] of lines) if (signals.filter((s) => pattern.test(s)).length >= 2) return kind
  const all = (pattern: RegExp) => signals.length > 0 && signals.every((s) => pattern.test(s))
  if (all(/^(?:IN|AIN|A)\d{1,2}$/)) return 'converter'
  const channels = new Set(signals.filter((s) => /^CH[A-H\d]\d?N?$/.test(s)))
  if (all(/^(?:CH[A-H\d]\d?N?|WO\d|OC\d|[A-D]N?|CH)$/)) return channels.size > 8 ? 'converter' : 'timer'
  return undefined
}

/** What the signals of a family become when its kind was told: the channel TB3 of a timer is CH3. */
export const signalFor = (kind: UnitKind, { unit, signal }: NamedFunction): string => {
  const number = signal.startsWith(unit) ? /^(\d{1,3})[A-D]?$/.exec(signal.slice(unit.length)) : null
  const letters = hintedUnit[kind]?.letters
  return number && letters ? `${letters}${number[1]}` : signal
}
