// IBIS files (ANSI/EIA-656): a chip's legs and how strong their drivers and clamps are, as tables of current over
// voltage in three corners. Read as far as a part needs it: component, package, pins and models.

import { faultAt } from './bsdl'

export interface Corners {
  typ: number
  min?: number
  max?: number
}
/** One row of a table: volts as the standard counts them, amperes into the leg. */
export interface TablePoint extends Corners {
  voltage: number
}
export interface IbisModel {
  name: string
  type: string
  capacitance?: Corners
  voltage?: Corners
  thresholds: { low?: number; high?: number }
  tables: Partial<Record<TableName, TablePoint[]>>
  line: number
}
export type TableName = 'pulldown' | 'pullup' | 'gnd clamp' | 'power clamp'
export interface IbisPin {
  leg: string
  name: string
  model: string
  line: number
}
export interface Ibis {
  version: string
  components: {
    name: string
    maker?: string
    /** r_pkg, l_pkg and c_pkg: what the package adds to every leg. */
    package: Record<string, Corners>
    /** Where the file has a model of the package besides; its matrices are not read. */
    packageModel?: string
    pins: IbisPin[]
  }[]
  models: IbisModel[]
}

const scales: Record<string, number> = {
  T: 1e12,
  G: 1e9,
  M: 1e6,
  k: 1e3,
  m: 1e-3,
  u: 1e-6,
  n: 1e-9,
  p: 1e-12,
  f: 1e-15,
}

/** `3.3V`, `10.2mA`, `1.0e-3`, `NA`: the unit behind the scale says nothing new (section 3 of the standard). */
export const ibisNumber = (text: string): number | undefined => {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)([A-Za-z]*)$/.exec(text)
  if (!match) return undefined
  const scale = scales[match[2]![0] ?? ''] ?? 1
  return Number(match[1]) * scale
}

interface Line {
  text: string
  number: number
}

/** Lines without comments; the mark that begins one can be changed on the way. */
const linesOf = (text: string): Line[] => {
  let mark = '|'
  return text.split(/\r\n?|\n/).flatMap((raw, i): Line[] => {
    const change = /^\[comment[ _]char\]\s*(\S)_char/i.exec(raw)
    if (change) {
      mark = change[1]!
      return []
    }
    const end = raw.indexOf(mark)
    const kept = (end >= 0 ? raw.slice(0, end) : raw).trim()
    return kept === '' ? [] : [{ text: kept, number: i + 1 }]
  })
}

const keyword = /^\[([^\]]+)\]\s*(.*)$/
/** Keywords are the same with blanks or underscores, in any case. */
const plainKeyword = (text: string) => text.toLowerCase().replace(/_/g, ' ').replace(/\s+/g, ' ').trim()

const tables: Record<string, TableName> = {
  pulldown: 'pulldown',
  pullup: 'pullup',
  'gnd clamp': 'gnd clamp',
  'power clamp': 'power clamp',
}

const corners = (words: string[], line: Line, file: string): Corners => {
  const [typ, min, max] = words.map((w) => (/^NA$/i.test(w) ? undefined : ibisNumber(w)))
  words.slice(0, 3).forEach((w) => {
    if (!/^NA$/i.test(w) && ibisNumber(w) === undefined)
      throw faultAt(file, line.number, `expected a number or NA, found “${w}”`)
  })
  if (typ === undefined) throw faultAt(file, line.number, 'expected a typical value, which may not be NA')
  return { typ, ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) }
}

/** Reads a file. Throws FaultyFile with the line and what was expected there. */
export const readIbis = (text: string, file: string): Ibis => {
  const lines = linesOf(text)
  const ibis: Ibis = { version: '', components: [], models: [] }
  let section = ''
  let ended = false
  // A name under [Model Selector] stands for one of several models; the first is what the part leaves the factory with.
  const selectors = new Map<string, string>()
  let selector: string | undefined
  for (const line of lines) {
    const key = keyword.exec(line.text)
    const words = line.text.split(/\s+/)
    const component = ibis.components[ibis.components.length - 1]
    const model = ibis.models[ibis.models.length - 1]
    const expected = (what: string) =>
      faultAt(file, line.number, `expected ${what}, found “${line.text.slice(0, 60)}”`)
    if (line.text.startsWith('[') && !key) throw expected('a keyword closed by “]”')
    if (key) {
      if (ended) throw expected('nothing after [End]')
      section = plainKeyword(key[1]!)
      const rest = key[2]!.trim()
      const given = rest.split(/\s+/).filter((w) => w !== '')
      if (ibis.version === '' && section !== 'ibis ver') throw expected('[IBIS Ver] first')
      if (section === 'ibis ver') ibis.version = rest
      else if (section === 'component') {
        if (rest === '') throw expected('the component’s name behind [Component]')
        ibis.components.push({ name: rest, package: {}, pins: [] })
      } else if (section === 'manufacturer' && component) component.maker = rest
      else if (section === 'package model' && component) component.packageModel = rest
      else if (section === 'model') {
        if (rest === '') throw expected('the model’s name behind [Model]')
        ibis.models.push({ name: rest, type: '', thresholds: {}, tables: {}, line: line.number })
      } else if (section === 'voltage range') {
        if (!model) throw expected('[Model] before [Voltage Range]')
        model.voltage = corners(given, line, file)
      } else if (section in tables) {
        if (!model) throw expected(`[Model] before [${key[1]}]`)
        model.tables[tables[section]!] = []
      } else if (section === 'model selector') {
        selector = rest.toLowerCase()
      } else if (section === 'pin' && !component) throw expected('[Component] before [Pin]')
      else if (section === 'end') ended = true
      continue
    }
    if (section === '') throw expected('[IBIS Ver]')
    if (section === 'model selector' && selector !== undefined && !selectors.has(selector))
      selectors.set(selector, words[0]!)
    if (section === 'package' && component && words.length >= 2)
      component.package[words[0]!.toLowerCase()] = corners(words.slice(1), line, file)
    else if (section === 'pin' && component) {
      if (words.length < 3) throw expected('leg, signal and model')
      component.pins.push({ leg: words[0]!, name: words[1]!, model: words[2]!, line: line.number })
    } else if (section === 'model' && model) {
      const [name, ...values] = words
      const value = (w: string | undefined) => (w === '=' ? undefined : w)
      const parameter = /^(\w+)\s*=?\s*(.*)$/.exec(line.text)!
      const lower = name!.toLowerCase()
      if (lower === 'model_type') model.type = value(parameter[2]) ?? ''
      else if (lower === 'c_comp')
        model.capacitance = corners(
          values.filter((w) => w !== '='),
          line,
          file,
        )
      else if (lower === 'vinl' || lower === 'vinh') {
        const number = ibisNumber(parameter[2]!.replace(/\s+/g, ''))
        if (number === undefined) throw expected(`a voltage for ${name}`)
        model.thresholds[lower === 'vinl' ? 'low' : 'high'] = number
      }
    } else if (section in tables && model) {
      const voltage = ibisNumber(words[0]!)
      if (voltage === undefined) throw expected('a voltage and its currents')
      if (words.length < 2) throw expected('the typical current behind the voltage')
      model.tables[tables[section]!]!.push({ voltage, ...corners(words.slice(1), line, file) })
    }
  }
  const last = lines[lines.length - 1]
  if (ibis.version === '') throw faultAt(file, 1, 'expected [IBIS Ver], found the end of the file')
  if (!ended)
    throw faultAt(file, last?.number ?? 1, 'expected [End] as the last keyword, found the end of the file')
  if (ibis.components.length === 0)
    throw faultAt(file, last?.number ?? 1, 'expected at least one [Component]')
  const known = new Set(ibis.models.map((m) => m.name.toLowerCase()))
  for (const { pins } of ibis.components)
    for (const pin of pins)
      if (
        !/^(?:POWER|GND|NC)$/i.test(pin.model) &&
        known.size > 0 &&
        !known.has(pin.model.toLowerCase()) &&
        !selectors.has(pin.model.toLowerCase())
      )
        throw faultAt(file, pin.line, `expected a model of this file, found “${pin.model}”`)
  for (const { pins } of ibis.components)
    for (const pin of pins) pin.model = selectors.get(pin.model.toLowerCase()) ?? pin.model
  for (const model of ibis.models)
    if (model.type === '') throw faultAt(file, model.line, `expected Model_type in [Model] ${model.name}`)
  return ibis
}
