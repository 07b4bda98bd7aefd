// A pasted table of legs, read: which legs there are, what each is called and can be, what contradicts itself, and what
// has to be asked. Pure: text and answers in, everything understood out.

import type { Fault, UnitKind } from '../parts'
import { type Column, columnsOf } from './columns'
import { bareName, hintOf, kindBySignals, type ReadToken, readToken, resetWord, signalFor } from './functions'
import type { Grid, Separator } from './grid'
import { type JoinedCell, type Layout, layoutOf, placeIn, placeOf, type TableRow } from './layout'
import { legsIn } from './legs'
import {
  isLegName,
  isPort,
  isReset,
  nameIn,
  namesInRange,
  type Token,
  tokensOf,
  typeByName,
  typeIn,
} from './names'
import type { Answers } from './questions'
import type { FoundFunction, FoundLeg, FoundUnit, PackageColumn, Understood } from './understood'

export interface TableOptions {
  answers?: Answers
  /** Legs of the builder's package, where known. */
  legs?: number
  separator?: Separator
  /** Positions of a board's header instead of legs of a package. */
  board?: boolean
}

/** One leg's row before its functions are settled. */
interface Entry {
  row: TableRow
  legs: number[] | undefined
  name: JoinedCell
  type?: string
  /** Its cell for the leg’s number is empty. */
  unnumbered: boolean
  functions: { cell: JoinedCell; column: Column; unit?: string }[]
  /** Cells that hold no functions, unless the builder says that a word of them is one. */
  others: JoinedCell[]
  more: Partial<Pick<FoundLeg, 'number' | 'label' | 'position'>>
}

const cellOf = (row: TableRow, column: Column | undefined): JoinedCell | undefined =>
  column ? row.cells[column.index] : undefined

/** Without spreading: a list may be too long for a call. */
const greatest = (numbers: number[]): number => numbers.reduce((a, b) => Math.max(a, b), 0)

const packagesOf = (layout: Layout, columns: Column[]): PackageColumn[] =>
  columns
    .filter((c) => c.role === 'legs')
    .map((c) => ({
      column: c.index,
      heading: c.heading,
      legs: greatest(layout.rows.flatMap((r) => legsIn(r.cells[c.index]?.text ?? '') ?? [])),
    }))

/** Two halves side by side: as many columns of names as of legs, and no leg in both. */
const foldedColumns = (layout: Layout, columns: Column[], board: boolean): Column[][] | undefined => {
  const names = columns.filter((c) => c.role === 'name')
  const legs = columns.filter((c) => c.role === 'legs')
  // Two sides of a board may be told without numbers, or each with its own.
  if (board && names.length === 2 && legs.length === 0) return [[names[0]!], [names[1]!]]
  if (names.length < 2 || names.length !== legs.length) return undefined
  const sets = legs.map((c) => layout.rows.flatMap((r) => legsIn(r.cells[c.index]?.text ?? '') ?? []))
  const all = sets.flat()
  if (!board && new Set(all).size < all.length * 0.9) return undefined
  const starts = columns.filter((c) => c.role === 'legs' || c.role === 'name').filter((_, i) => i % 2 === 0)
  return starts.map((s, i) => {
    const end = starts[i + 1]?.index ?? Infinity
    return columns.filter((c) => c.index >= s.index && c.index < end)
  })
}

/** The unit that the column before it names for this row. */
const unitBeside = (row: TableRow, columns: Column[], column: Column): string | undefined => {
  const before = columns.find((c) => c.index === column.index - 1 && c.role === 'unit')
  return before && (row.cells[before.index]?.text || undefined)
}

const sideIn = (text: string): string | undefined =>
  /\b(left|right|top|bottom|upper|lower|(?:J|CN|P|X|H)\d{1,2})\b/i.exec(text)?.[1]?.toLowerCase()

/** Header and place of a board’s position, where two halves or the titles between rows tell: `left 3`. */
const seatsOf = (layout: Layout, parts: Column[][]) => {
  const titles = layout.titles.flatMap(({ line, text }) => {
    const side = sideIn(text)
    return side === undefined ? [] : [{ line, side }]
  })
  const counts = new Map<string, number>()
  return (row: TableRow, part: number, legs: number[] | undefined): string | undefined => {
    const heading = parts[part]!.map((c) => sideIn(c.heading)).find((s) => s !== undefined)
    const above = titles.filter((t) => t.line < row.lines[0]!).at(-1)?.side
    const side =
      parts.length > 1 ? (heading ?? ['left', 'right'][part]) : titles.length > 1 ? above : undefined
    if (side === undefined) return undefined
    const next = (counts.get(side) ?? 0) + 1
    counts.set(side, next)
    return `${side} ${legs?.[0] ?? next}`
  }
}

const entriesOf = (
  layout: Layout,
  parts: Column[][],
  legColumn: number | undefined,
  seatOf?: ReturnType<typeof seatsOf>,
): Entry[] =>
  layout.rows.flatMap((row) =>
    parts.flatMap((columns, part): Entry[] => {
      const name = cellOf(
        row,
        columns.find((c) => c.role === 'name'),
      )
      const legs = columns.find((c) => c.role === 'legs' && (parts.length > 1 || c.index === legColumn))
      if (!name || name.text === '') return []
      // A table of signals has a dash for the port of a supply: its own name stands among them.
      const instead = /^[-–—]+$/.test(name.text)
        ? columns.flatMap((c) => {
            const cell = c.role === 'functions' ? row.cells[c.index] : undefined
            return cell && isLegsName(cell.text) ? [cell] : []
          })[0]
        : undefined
      const text = (role: Column['role']) =>
        cellOf(
          row,
          columns.find((c) => c.role === role),
        )?.text || undefined
      const number = text('number')
      return [
        {
          row,
          legs: legs && legsIn(row.cells[legs.index]?.text ?? ''),
          name: instead ?? name,
          unnumbered: legs !== undefined && (row.cells[legs.index]?.text ?? '') === '',
          type: text('type'),
          functions: columns.flatMap((column) => {
            const cell = row.cells[column.index]
            return (column.role === 'functions' || column.role === 'select') &&
              cell &&
              cell !== instead &&
              cell.text !== ''
              ? [{ cell, column: selected(row, columns, column), unit: unitBeside(row, columns, column) }]
              : []
          }),
          others: columns.flatMap((column) => {
            const cell = row.cells[column.index]
            return (column.role === 'nothing' || column.role === 'type') && cell && cell.text !== ''
              ? [cell]
              : []
          }),
          more: {
            ...(number !== undefined && /^\d+$/.test(number) ? { number: Number(number) } : {}),
            label: text('label'),
            position:
              text('position') ?? seatOf?.(row, part, legs && legsIn(row.cells[legs.index]?.text ?? '')),
          },
        },
      ]
    }),
  )

/** The column of functions, with the number that the column before it selects them by in this row. */
const selected = (row: TableRow, columns: Column[], column: Column): Column => {
  const before = columns.find((c) => c.index === column.index - 1 && c.role === 'selects')
  const number = /\d+$/.exec((before && row.cells[before.index]?.text) ?? '')?.[0]
  return number === undefined ? column : { ...column, select: Number(number) }
}

/** PB0, PB1 on legs 10 and 11: as many ports as legs. */
const namesListed = ({ name, legs }: Entry): string[] | undefined => {
  const names = tokensOf(name.text).map((t) => t.text)
  return legs && legs.length > 1 && names.length === legs.length && names.every(isPort) ? names : undefined
}

/** A row that stands for several legs: PA0–PA7 on legs 1 to 8, its functions counting along. */
const unrolled = (entry: Entry): { entry: Entry; name: string; at: number; of: number }[] => {
  const names = namesInRange(entry.name.text) ?? namesListed(entry)
  if (!names) return [{ entry, name: entry.name.text, at: 0, of: 1 }]
  const each = entry.legs?.length === names.length
  return names.map((name, at) => ({
    entry: { ...entry, legs: entry.legs && each ? [entry.legs[at]!] : entry.legs },
    name,
    at,
    of: names.length,
  }))
}

const kindOf = (text: string): UnitKind | undefined => {
  const read = readToken(text)
  return read && 'function' in read ? read.function.kind : undefined
}
/** `UART1 TX` is one function where a unit alone stands before a signal. */
const paired = (tokens: Token[], text: string): Token[] => {
  const out: Token[] = []
  for (let i = 0; i < tokens.length; i++) {
    const [a, b] = [tokens[i]!, tokens[i + 1]]
    const together =
      b &&
      text.slice(a.to, b.from) === ' ' &&
      /^[A-Z][A-Z0-9]*\d$/.test(a.text) &&
      /^[A-Z]{2,4}\d{0,2}N?$/.test(b.text) &&
      (kindOf(a.text) === undefined ||
        (/^(?:CH|IN)\d/.test(b.text) && kindOf(a.text) === kindOf(`${a.text}_${b.text}`))) &&
      (kindOf(`${a.text}_${b.text}`) !== undefined || kindOf(b.text) !== undefined || /^CH\d/.test(b.text))
    if (together) {
      out.push({ text: `${a.text}_${b.text}`, from: a.from, to: b.to })
      i++
    } else out.push(a)
  }
  return out
}

interface ReadFunctions {
  functions: FoundFunction[]
  words: Set<string>
  debug?: string
}
/** A word that the builder says is a function. */
const asSaid = (text: string, kind: UnitKind): ReadToken => {
  const read = readToken(text)
  const name = bareName(text).toUpperCase()
  const made = read && 'function' in read ? read.function : { unit: name, signal: name, family: name }
  return { function: { ...made, kind } }
}
const readCell = (
  cell: JoinedCell,
  column: Column | undefined,
  from: number,
  at: number,
  of: number,
  unit?: string,
  answers: Answers = {},
): ReadFunctions => {
  const read: ReadFunctions = { functions: [], words: new Set() }
  const hint = column ? hintOf(column.heading) : {}
  const text = cell.text.slice(from)
  const tokens = paired(tokensOf(text), text)
  // As many as there are legs, and none that counts: one for each.
  const each = of > 1 && tokens.length === of && !tokens.some((t) => namesInRange(t.text))
  for (const token of each ? [tokens[at]!] : tokens) {
    const range = of > 1 ? namesInRange(token.text) : undefined
    const one = range && range.length === of ? range[at]! : token.text
    const said = answers[`word:${token.text}`]
    const known =
      said !== undefined && said !== 'nothing'
        ? asSaid(one, said as UnitKind)
        : unit
          ? readToken(`${unit}_${one}`)
          : readToken(one, hint)
    if (!known) continue
    if ('word' in known && known.word) read.words.add(known.word)
    if (!('function' in known)) continue
    if (known.word === 'debug') read.debug = known.function.signal
    read.functions.push({
      ...known.function,
      by: known.function.kind ? 'form' : 'nothing',
      ...(column?.select === undefined ? {} : { select: column.select }),
      text: one,
      place: placeIn(cell, from + token.from, from + token.to),
    })
  }
  return read
}

/** Words of a cell that the builder says are functions. */
const saidIn = (cell: JoinedCell, answers: Answers): ReadFunctions => ({
  words: new Set(),
  functions: tokensOf(cell.text).flatMap((token): FoundFunction[] => {
    const kind = answers[`word:${token.text}`]
    const read = kind === undefined || kind === 'nothing' ? undefined : asSaid(token.text, kind as UnitKind)
    return read && 'function' in read
      ? [{ ...read.function, by: 'answer', text: token.text, place: placeIn(cell, token.from, token.to) }]
      : []
  }),
})
const noted = (entry: Entry, layout: Layout): string[] => {
  const marks = new Set<string>()
  for (const m of entry.name.text.matchAll(/[([](\d{1,2})[)\]]|([¹²³⁴⁵*†‡§])/g)) marks.add(m[1] ?? m[2]!)
  return layout.footnotes.filter((f) => marks.has(f.mark)).map((f) => f.text)
}

const legFrom = (
  { entry, name, at, of }: ReturnType<typeof unrolled>[number],
  layout: Layout,
  legs: number[],
  answers: Answers,
): FoundLeg | undefined => {
  const named = nameIn(name)
  if (!named) return undefined
  const whole = nameIn(entry.name.text)
  // What stands beside the name in its own cell is a function too.
  const beside =
    of > 1
      ? []
      : (whole?.others ?? []).map((other) =>
          readCell(
            { ...entry.name, text: entry.name.text.slice(0, other.to) },
            undefined,
            other.from,
            0,
            1,
            undefined,
            answers,
          ),
        )
  const itself = (f: FoundFunction) => bareName(f.text).toUpperCase() === named.id && isPort(named.id)
  const reads = [
    ...beside,
    ...entry.functions.map((f) => readCell(f.cell, f.column, 0, at, of, f.unit, answers)),
    ...entry.others.map((cell) => saidIn(cell, answers)),
  ]
  const own = isPort(named.id) ? undefined : readToken(named.id)
  const byName = typeByName(named.id)
  // A dash says nothing of a leg that has a name.
  const dashed = entry.type === undefined || /^[-–—]+$/.test(entry.type)
  const told = dashed ? undefined : typeIn(entry.type!, layout.legend)
  const reset = isReset(named.id) || reads.some((r) => r.words.has('reset'))
  // A leg’s own name among what it can be says nothing more.
  const functions = reads.flatMap((r) => r.functions).filter((f) => !itself(f))
  if (own && 'function' in own && own.function.kind && !byName)
    functions.unshift({ ...own.function, by: 'form', text: named.id, place: placeOf(entry.name) })
  const plain = told !== undefined && told !== 'analog' ? told : 'io'
  const against =
    (byName === 'supply' || byName === 'ground') && (told === 'io' || told === 'input' || told === 'output')
  return {
    id: named.id,
    legs,
    type: byName ?? (isReset(named.id) && told === undefined ? 'input' : plain),
    functions: byName ? [] : functions,
    reset: reset && !byName,
    oscillator: reads.some((r) => r.words.has('oscillator')) || (own?.word === 'oscillator' && !byName),
    debug: own?.word === 'debug' ? named.id : reads.find((r) => r.debug)?.debug,
    notes: noted(entry, layout),
    ...(against
      ? {
          unsure: [
            `its name is a ${byName === 'supply' ? 'supply’s' : 'ground’s'}, its type says “${entry.type}”`,
          ],
        }
      : {}),
    ...entry.more,
    places: [placeOf(entry.name)],
  }
}

/** Rows of the same leg, as in a table with one function a row; and supply legs of one name, which are one pin. */
const mergedRows = (found: FoundLeg[]): FoundLeg[] => {
  const byId = new Map<string, FoundLeg[]>()
  const merged: FoundLeg[] = []
  for (const leg of found) {
    const named = byId.get(leg.id) ?? []
    const here = leg.legs.join()
    // A row without a number goes on with the leg of its name.
    const again =
      here === '' && leg.position === undefined
        ? named[0]
        : named.find((m) => m.legs.join() === here && m.position === leg.position)
    const supply = named.find((m) => m.type === leg.type && m.type !== 'io' && m.type !== 'input')
    if (again) {
      again.functions.push(...leg.functions)
      again.places.push(...leg.places)
    } else if (supply && leg.label === undefined && leg.position === undefined) {
      supply.legs = [...new Set([...supply.legs, ...leg.legs])]
      supply.places.push(...leg.places)
    } else {
      merged.push(leg)
      byId.set(leg.id, [...named, leg])
    }
  }
  return merged
}

const settleKinds = (legs: FoundLeg[], answers: Answers): FoundUnit[] => {
  // What was said to be no function at all.
  for (const leg of legs) {
    const none = leg.functions.filter((f) => answers[`kind:${f.family}`] === 'none')
    if (none.length === 0) continue
    leg.leftOut = [...(leg.leftOut ?? []), ...none.map((f) => f.place)]
    leg.functions = leg.functions.filter((f) => !none.includes(f))
  }
  const families = new Map<string, Set<string>>()
  for (const f of legs.flatMap((l) => l.functions)) {
    if (f.by === 'form') continue
    if (!families.has(f.family)) families.set(f.family, new Set())
    families.get(f.family)!.add(f.signal)
  }
  const told = (family: string) => {
    const answer = answers[`kind:${family}`]
    return answer as UnitKind | undefined
  }
  const guessed = new Map<string, UnitKind | undefined>()
  const kindOf = (family: string) => {
    if (!guessed.has(family)) guessed.set(family, kindBySignals([...families.get(family)!]))
    return guessed.get(family)
  }
  const known = new Map<string, UnitKind>()
  for (const f of legs.flatMap((l) => l.functions))
    if (f.by === 'form' && f.kind && f.kind !== 'other') known.set(f.family, f.kind)
  const units = new Map<string, FoundUnit & { seen: Set<string> }>()
  for (const f of legs.flatMap((l) => l.functions)) {
    const answer = told(f.family)
    if (answer !== undefined && f.kind !== answer) Object.assign(f, { kind: answer, by: 'answer' })
    else if (f.kind === undefined) {
      const byFamily = kindOf(f.family)
      // Another signal of a unit whose kind is known, such as its clock input, does nothing that is asked for.
      if (byFamily) Object.assign(f, { kind: byFamily, by: 'signals' })
      else Object.assign(f, { kind: 'other', by: 'nothing' })
    }
    if (f.by === 'answer') f.signal = signalFor(f.kind!, f)
    const main = known.get(f.family)
    if (f.kind === 'other' && main) f.unit = `${f.unit}-MORE`
    const unit = units.get(f.unit)
    if (unit) {
      unit.functions++
      if (!unit.seen.has(f.signal)) unit.signals.push(f.signal)
      unit.seen.add(f.signal)
    } else
      units.set(f.unit, {
        id: f.unit,
        family: f.family,
        kind: f.kind!,
        signals: [f.signal],
        functions: 1,
        seen: new Set([f.signal]),
      })
  }
  return [...units.values()].map(({ id, family, kind, signals, functions }) => ({
    id,
    family,
    kind,
    signals,
    functions,
  }))
}

const settleSelects = (layout: Layout, columns: Column[], answers: Answers): void => {
  const answer = answers.select
  const bare = columns.filter((c) => c.role === 'functions' && c.heading === '')
  const gaps = layout.rows.filter((r) => {
    const filled = bare.map((c) => /[A-Z0-9]/i.test(r.cells[c.index]?.text ?? ''))
    return filled.lastIndexOf(true) > filled.indexOf(false) && filled.includes(false)
  })
  const matrix = bare.length >= 4 && gaps.length >= layout.rows.length * 0.2
  if (!matrix || answer === 'none') return
  const first = answer === 'one' ? 1 : 0
  bare.forEach((c, i) => Object.assign(c, { role: 'select', select: i + first, sure: answer ? 1 : 0.4 }))
}

const legFaults = (legs: FoundLeg[], total: number, listed: number | undefined): Fault[] => {
  if (legs.length === 0)
    return [{ path: 'text', message: 'no leg was found in it: no row has a leg’s number beside a name' }]
  const faults: Fault[] = []
  const names = new Map<number, string[]>()
  for (const l of legs) for (const n of l.legs) names.set(n, [...(names.get(n) ?? []), l.id])
  for (const [n, ids] of names)
    if (ids.length > 1)
      faults.push({ path: `leg ${n}`, message: `is named ${[...new Set(ids)].join(' and ')}` })
  const missing = Array.from({ length: total }, (_, i) => i + 1).filter((n) => !names.has(n))
  if (missing.length > 0)
    faults.push({
      path: 'legs',
      message: `${total} listed, ${names.size} named; missing: ${missing.join(', ')}`,
    })
  if (listed !== undefined && listed !== total)
    faults.push({
      path: 'title',
      message: `the heading speaks of ${listed} legs, the table goes up to ${total}`,
    })
  const twice = new Map<string, number[]>()
  for (const l of legs)
    if (l.type === 'io' || l.type === 'input' || l.type === 'output')
      twice.set(l.id, [...(twice.get(l.id) ?? []), ...l.legs])
  for (const [id, at] of twice)
    if (at.length > 1) faults.push({ path: id, message: `is on legs ${at.join(' and ')}` })
  return faults
}

/** What the builder said about single legs: which name holds, what a missing one is. */
const withAnswers = (legs: FoundLeg[], answers: Answers): FoundLeg[] => {
  let now = legs
  for (const [id, answer] of Object.entries(answers)) {
    const leg = /^leg:(\d+)$/.exec(id)
    if (leg) {
      const n = Number(leg[1])
      now = now.flatMap((l) => {
        if (!l.legs.includes(n) || l.id === answer) return [l]
        const rest = l.legs.filter((x) => x !== n)
        return rest.length > 0 ? [{ ...l, legs: rest }] : []
      })
    }
    const missing = /^missing:(\d+)$/.exec(id)
    if (missing && answer !== 'unknown') {
      const n = Number(missing[1])
      const name = bareName(answer).toUpperCase()
      if (!now.some((l) => l.legs.includes(n)) && isLegName(name))
        now = [
          ...now,
          {
            id: name,
            legs: [n],
            type: typeByName(name) ?? 'io',
            functions: [],
            reset: resetWord.test(name),
            oscillator: false,
            notes: [],
            places: [],
          },
        ]
    }
    const twice = /^twice:(.+)$/.exec(id)
    if (twice)
      now = now
        .map((l) =>
          l.id === twice[1] && answer !== 'all'
            ? { ...l, legs: l.legs.filter((n) => String(n) === answer) }
            : l,
        )
        .filter((l) => l.legs.length > 0 || l.position !== undefined)
  }
  return mergedRows(now)
}

/** What a leg's corrections are kept under: the name that the sheet gives it; the second of a name is `PA0/2`. */
const keyed = (legs: FoundLeg[]): FoundLeg[] => {
  const times = new Map<string, number>()
  return legs.map((leg) => {
    const n = (times.get(leg.id) ?? 0) + 1
    times.set(leg.id, n)
    return { ...leg, key: n === 1 ? leg.id : `${leg.id}/${n}` }
  })
}
/** What the builder wrote into the table of what was understood: `set:PA0:legs`, `…:name`, `…:type`, `…:functions`. */
const corrected = (legs: FoundLeg[], answers: Answers): FoundLeg[] =>
  keyed(legs).map((leg) => {
    const told = (field: string) => answers[`set:${leg.key}:${field}`]
    const [numbers, name, type, functions] = [told('legs'), told('name'), told('type'), told('functions')]
    if ([numbers, name, type, functions].every((t) => t === undefined)) return leg
    const id = name === undefined ? leg.id : bareName(name).toUpperCase() || leg.id
    const byName = name === undefined ? undefined : typeByName(id)
    const now = functions === undefined ? leg.functions : functionsFrom(functions, leg)
    const left = new Set(now.map((f) => f.family))
    const takenOut = [...new Set(leg.functions.map((f) => f.family))].filter((f) => !left.has(f))
    return {
      ...leg,
      legs: (numbers === undefined ? undefined : legsIn(numbers)) ?? leg.legs,
      ...(takenOut.length > 0 ? { takenOut } : {}),
      leftOut: [...(leg.leftOut ?? []), ...leg.functions.filter((f) => !now.includes(f)).map((f) => f.place)],
      id,
      type: (type as FoundLeg['type'] | undefined) ?? byName ?? leg.type,
      reset: name === undefined ? leg.reset : isReset(id),
      functions: now,
    }
  })
/** Corrections of legs that are not in the table any more, since it is read otherwise now. */
const withoutLeg = (legs: FoundLeg[], answers: Answers): Fault[] => {
  const keys = new Set(legs.map((l) => l.key))
  const lost = Object.keys(answers).flatMap((id) => {
    const key = /^set:(.*):\w+$/.exec(id)?.[1]
    return key !== undefined && !keys.has(key) ? [key] : []
  })
  return [...new Set(lost)].map((key) => ({
    path: key,
    message: 'what you wrote for it is not used: the table, as it is read now, has no such leg',
  }))
}
/** What of functions as a builder types them is no name at all. */
export const notFunctions = (text: string): string[] =>
  paired(tokensOf(text), text).flatMap((t) => {
    const read = readToken(t.text)
    return read && 'function' in read ? [] : [t.text]
  })
/** Functions as a builder types them: names parted by commas or spaces, each at its old place where it had one. */
const functionsFrom = (text: string, leg: FoundLeg): FoundFunction[] =>
  paired(tokensOf(text), text).flatMap((t): FoundFunction[] => {
    const before = leg.functions.find((f) => f.text === t.text || `${f.unit}.${f.signal}` === t.text)
    if (before) return [before]
    const read = readToken(t.text)
    const place = leg.places[0] ?? { line: 1, from: 0, to: 0 }
    return read && 'function' in read
      ? [{ ...read.function, by: read.function.kind ? 'form' : 'nothing', text: t.text, place }]
      : []
  })

/** A name that is a leg’s whatever stands beside it: a port, a supply, the reset. */
const isLegsName = (text: string): boolean => {
  const id = nameIn(text)?.id
  const type = id === undefined ? undefined : typeByName(id)
  // 3.2 alone may be a section’s number.
  return (
    id !== undefined &&
    /[A-Z+]/.test(id) &&
    (isPort(id) || type === 'supply' || type === 'ground' || isReset(id))
  )
}

/** What one way to part the text into rows leads to. */
export interface GridRead {
  read: Omit<Understood, 'questions' | 'account' | 'readings' | 'used'>
  /** Families of all functions that were read, also of those that the builder says are none. */
  families: ReadonlySet<string>
  /** Rows that look like a leg’s, have no number, and no name that is a leg’s for sure. */
  dropped: ReadonlySet<TableRow>
  /** Rows whose leg another package has and the chosen one has not. */
  elsewhere: ReadonlySet<TableRow>
  layout: Layout
  numbered: boolean
  chosen: PackageColumn | undefined
}

/** Reads rows of cells as a table of legs (or, for a board, of header positions). Never throws. */
export const readGrid = (
  grid: Grid,
  options: TableOptions = {},
  left: ReadonlySet<number> = new Set(),
): GridRead => {
  const { answers = {}, board = false } = options
  const layout = layoutOf(grid, left)
  const columns = columnsOf(layout, answers, board)
  if (grid.separator !== 'words') settleSelects(layout, columns, answers)
  const packages = packagesOf(layout, columns)
  const folded = foldedColumns(layout, columns, board)
  const chosen = folded ? undefined : chosenPackage(packages, answers, options.legs ?? layout.titled[0])
  const parts = folded ?? [columns]
  const entries = entriesOf(layout, parts, chosen?.column, board ? seatsOf(layout, parts) : undefined)
  const numbered = (folded !== undefined && packages.length > 0) || chosen !== undefined
  let next = 1
  const dropped = new Set<TableRow>()
  const elsewhere = new Set<TableRow>()
  const found = entries.flatMap((entry) =>
    unrolled(entry).flatMap((one) => {
      const legs = numbered ? one.entry.legs : answers.order === 'none' ? [] : [next++]
      if (!legs) return []
      const unnumbered = legs.length === 0 && numbered && !board
      // A dash, or a number in another package’s column: this package has no such leg. A cell left empty says nothing.
      if (unnumbered && (packages.length > 1 || !one.entry.unnumbered)) {
        elsewhere.add(one.entry.row)
        return []
      }
      if (unnumbered && !isLegsName(one.name)) {
        dropped.add(one.entry.row)
        return []
      }
      return legFrom(one, layout, legs, answers) ?? []
    }),
  )
  const legs = corrected(withAnswers(mergedRows(found), answers), answers)
  const families = new Set(legs.flatMap((l) => l.functions.map((f) => f.family)))
  const units = settleKinds(legs, answers)
  const highest = greatest(legs.flatMap((l) => l.legs))
  const total = board ? legs.length : (options.legs ?? highest)
  return {
    read: {
      separator: grid.separator,
      kinds: layout.kinds,
      columns,
      packages: folded ? [] : packages,
      legs,
      units,
      total,
      faults: board
        ? []
        : [
            ...legFaults(legs, total, packages.length > 1 ? undefined : layout.titled[0]),
            ...withoutLeg(legs, answers),
          ],
    },
    families,
    dropped,
    elsewhere,
    layout,
    numbered,
    chosen,
  }
}

/** The column of the builder's package: told, or the only one with as many legs as theirs has. */
const chosenPackage = (
  packages: PackageColumn[],
  answers: Answers,
  legs: number | undefined,
): PackageColumn | undefined => {
  const told = packages.find((p) => String(p.column) === answers.package)
  const fitting = packages.filter((p) => p.legs === legs)
  return told ?? (fitting.length === 1 ? fitting[0] : packages[0])
}
