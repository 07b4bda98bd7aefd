// Boundary-scan descriptions (IEEE 1149.1, BSDL): a subset of VHDL in which makers publish which port of a chip is on
// which leg. Read here as far as a part needs it: entity, packages, ports, pin maps and the test access port.

import { FaultyFile } from '../parts'

export interface BsdlPort {
  name: string
  /** Of a vector: each of its elements. */
  index?: number
  mode: string
  line: number
}
export interface Bsdl {
  entity: string
  /** The package that the generic names, where it names one. */
  defaultPackage?: string
  ports: BsdlPort[]
  /** Legs of each port, by package and port name (`A` or `A(3)`). */
  maps: Record<string, Record<string, string[]>>
  /** Which port is which signal of the test access port: TDI, TDO, TMS, TCK, TRST. */
  tap: Record<string, string>
}

interface Token {
  kind: 'name' | 'number' | 'text' | 'mark'
  text: string
  line: number
}
const patterns =
  /(--[^\n]*)|("(?:[^"\n]|"")*")|([A-Za-z][A-Za-z0-9_]*)|(-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?)|(:=|=>|<>|<=|[():;,&.*+\-'|=])|(\n)|([ \t\r\f]+)|(.)/g

const modes = new Set([
  'in',
  'out',
  'inout',
  'buffer',
  'linkage',
  'linkage_in',
  'linkage_out',
  'linkage_inout',
  'linkage_buffer',
  'linkage_mechanical',
  'power_0',
  'power_pos',
  'power_neg',
  'vref_in',
  'vref_out',
])

/** Throws FaultyFile naming the line, as every reader of exchange files does. */
export const faultAt = (file: string, line: number, message: string): FaultyFile =>
  new FaultyFile(file, [{ path: `line ${line}`, message }])

const tokensOf = (text: string, file: string): Token[] => {
  const tokens: Token[] = []
  let line = 1
  for (const m of text.matchAll(patterns)) {
    const [, , string, name, number, mark, newline, , other] = m
    if (newline !== undefined) line++
    else if (string !== undefined)
      tokens.push({ kind: 'text', text: string.slice(1, -1).replace(/""/g, '"'), line })
    else if (name !== undefined) tokens.push({ kind: 'name', text: name, line })
    else if (number !== undefined) tokens.push({ kind: 'number', text: number, line })
    else if (mark !== undefined) tokens.push({ kind: 'mark', text: mark, line })
    else if (other === '"')
      throw faultAt(file, line, 'a text must end with " on the line it begins on; join lines with &')
    else if (other !== undefined) throw faultAt(file, line, `“${other}” has no meaning here`)
  }
  return tokens
}

class Reader {
  private at = 0
  constructor(
    private readonly tokens: Token[],
    readonly file: string,
  ) {}

  get done(): boolean {
    return this.at >= this.tokens.length
  }
  get line(): number {
    return this.tokens[this.at]?.line ?? this.tokens[this.tokens.length - 1]?.line ?? 1
  }
  fail(expected: string): FaultyFile {
    const token = this.tokens[this.at]
    return faultAt(
      this.file,
      this.line,
      `expected ${expected}, found ${token ? `“${token.text}”` : 'the end of the file'}`,
    )
  }
  is(word: string): boolean {
    const token = this.tokens[this.at]
    return token !== undefined && token.kind !== 'text' && token.text.toLowerCase() === word
  }
  take(word: string): void {
    if (!this.is(word)) throw this.fail(`“${word}”`)
    this.at++
  }
  maybe(word: string): boolean {
    if (!this.is(word)) return false
    this.at++
    return true
  }
  next(kind: Token['kind'], what: string): Token {
    const token = this.tokens[this.at]
    if (token?.kind !== kind) throw this.fail(what)
    this.at++
    return token
  }
  name(what: string): Token {
    return this.next('name', what)
  }
  /** Texts joined by &: each piece with the line it stands on. */
  texts(what: string): Token[] {
    const pieces = [this.next('text', what)]
    while (this.maybe('&')) pieces.push(this.next('text', 'the rest of the text'))
    return pieces
  }
  /** Everything up to a semicolon, brackets included. */
  skipStatement(): void {
    while (!this.done && !this.is(';')) this.at++
    this.take(';')
  }
}

const wholeNumber = (reader: Reader): number => Number(reader.next('number', 'a number').text)

const readPorts = (reader: Reader): BsdlPort[] => {
  const ports: BsdlPort[] = []
  reader.take('(')
  do {
    if (reader.is(')')) break
    const names = [reader.name('the name of a port')]
    while (reader.maybe(',')) names.push(reader.name('the name of a port'))
    reader.take(':')
    const mode = reader.name('a mode: in, out, inout, buffer or linkage')
    if (!modes.has(mode.text.toLowerCase()))
      throw faultAt(
        reader.file,
        mode.line,
        `expected in, out, inout, buffer or linkage, found “${mode.text}”`,
      )
    const type = reader.name('bit or bit_vector').text.toLowerCase()
    let indices: (number | undefined)[] = [undefined]
    if (type === 'bit_vector') {
      reader.take('(')
      const from = wholeNumber(reader)
      const down = reader.maybe('downto')
      if (!down) reader.take('to')
      const to = wholeNumber(reader)
      reader.take(')')
      if (Math.abs(to - from) > 4095 || (down ? to > from : to < from))
        throw reader.fail('a range that goes its way')
      const step = down ? -1 : 1
      indices = Array.from({ length: Math.abs(to - from) + 1 }, (_, i) => from + i * step)
    } else if (type !== 'bit') throw reader.fail('bit or bit_vector')
    for (const name of names)
      for (const index of indices)
        ports.push({ name: name.text, index, mode: mode.text.toLowerCase(), line: name.line })
  } while (reader.maybe(';'))
  reader.take(')')
  reader.take(';')
  return ports
}

/** `CLK:1, D:(2,3,4), VCC:(5,6)`: the text of a pin map, in its pieces. */
const readMap = (pieces: Token[], file: string): Record<string, { legs: string[]; line: number }> => {
  const marks = pieces.flatMap((p) =>
    [...p.text.matchAll(/[A-Za-z0-9_]+|[:(),]|\S/g)].map((m) => ({ text: m[0], line: p.line })),
  )
  const map: Record<string, { legs: string[]; line: number }> = {}
  let at = 0
  const fail = (expected: string) =>
    faultAt(
      file,
      marks[at]?.line ?? pieces[pieces.length - 1]!.line,
      `expected ${expected} in the pin map, found ${at < marks.length ? `“${marks[at]!.text}”` : 'its end'}`,
    )
  const word = (what: string) => {
    if (!/^[A-Za-z0-9_]+$/.test(marks[at]?.text ?? '')) throw fail(what)
    return marks[at++]!
  }
  while (at < marks.length) {
    const name = word('the name of a port')
    if (marks[at]?.text !== ':') throw fail('“:”')
    at++
    const legs: string[] = []
    if (marks[at]?.text === '(') {
      do {
        at++
        legs.push(word('a leg').text)
      } while (marks[at]?.text === ',')
      if (marks[at]?.text !== ')') throw fail('“)”')
      at++
    } else legs.push(word('a leg').text)
    map[name.text.toLowerCase()] = { legs, line: name.line }
    if (at < marks.length) {
      if (marks[at]!.text !== ',') throw fail('“,”')
      at++
    }
  }
  return map
}

const tapSignals: Record<string, string> = {
  tap_scan_in: 'TDI',
  tap_scan_out: 'TDO',
  tap_scan_mode: 'TMS',
  tap_scan_clock: 'TCK',
  tap_scan_reset: 'TRST',
}

/** Legs of each element of a port, from the legs that the map lists for the whole. */
const spread = (
  ports: BsdlPort[],
  map: Record<string, { legs: string[]; line: number }>,
  file: string,
): Record<string, string[]> => {
  const byName = new Map<string, BsdlPort[]>()
  for (const p of ports) byName.set(p.name.toLowerCase(), [...(byName.get(p.name.toLowerCase()) ?? []), p])
  const result: Record<string, string[]> = {}
  for (const [name, { legs, line }] of Object.entries(map)) {
    const all = byName.get(name)
    if (!all) throw faultAt(file, line, `the pin map names ${name}, which is no port`)
    if (all[0]!.index === undefined) result[all[0]!.name] = legs
    else {
      if (legs.length !== all.length)
        throw faultAt(
          file,
          line,
          `${all[0]!.name} has ${all.length} elements, the pin map gives ${legs.length} legs`,
        )
      all.forEach((p, i) => (result[`${p.name}(${p.index})`] = [legs[i]!]))
    }
  }
  return result
}

/** Reads a description. Throws FaultyFile with the line and what was expected there. */
export const readBsdl = (text: string, file: string): Bsdl => {
  const reader = new Reader(tokensOf(text, file), file)
  while (!reader.done && !reader.is('entity')) reader.skipStatement()
  reader.take('entity')
  const entity = reader.name('the name of the entity').text
  reader.take('is')
  let defaultPackage: string | undefined
  let ports: BsdlPort[] | undefined
  const constants: { name: string; pieces: Token[] }[] = []
  const tap: Bsdl['tap'] = {}
  while (!reader.is('end')) {
    if (reader.maybe('generic')) {
      reader.take('(')
      reader.name('the name of the generic')
      reader.take(':')
      reader.name('its type')
      if (reader.maybe(':=')) defaultPackage = reader.texts('the default package in quotes')[0]!.text
      reader.take(')')
      reader.take(';')
    } else if (reader.maybe('port')) ports = readPorts(reader)
    else if (reader.maybe('constant')) {
      const name = reader.name('the name of the constant')
      reader.take(':')
      const type = reader.name('its type').text.toLowerCase()
      reader.take(':=')
      if (type === 'pin_map_string') {
        constants.push({ name: name.text, pieces: reader.texts('the pin map in quotes') })
        reader.take(';')
      } else reader.skipStatement()
    } else if (reader.maybe('attribute')) {
      const attribute = reader.name('the name of the attribute').text.toLowerCase()
      if (reader.maybe('of')) {
        const of = reader.name('what the attribute is of').text
        if (reader.is('(')) {
          // A single element of a port.
          reader.take('(')
          wholeNumber(reader)
          reader.take(')')
        }
        reader.take(':')
        reader.name('signal, entity or package')
        reader.take('is')
        const signal = tapSignals[attribute]
        if (signal) tap[signal] = of
      }
      reader.skipStatement()
    } else if (reader.maybe('use')) reader.skipStatement()
    else throw reader.fail('generic, port, use, attribute, constant or end')
  }
  if (!ports) throw reader.fail('the ports, before the end of the entity')
  const maps = Object.fromEntries(
    constants.map(({ name, pieces }) => [name, spread(ports, readMap(pieces, file), file)]),
  )
  return { entity, defaultPackage: defaultPackage || undefined, ports, maps, tap }
}
