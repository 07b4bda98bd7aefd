// What each piece of a read table was taken for, cell by cell: the account that a reading gives of its text.

import type { Classes } from './account'
import type { Column } from './columns'
import { bareName, readToken } from './functions'
import { type JoinedCell, type Place, placeIn, placesIn } from './layout'
import { legsIn } from './legs'
import { isFunctionName, isPort, nameIn, namesInRange, tokensOf, typeByName, typeIn } from './names'
import type { GridRead } from './table'
import { isPlainWord, type TypeCodes } from './words'

const sentence = (text: string) => (text.match(/\p{Ll}{3,}/gu) ?? []).length >= 2

/** `supply 5 V`, `analog output`: words for people alone, what they say of volts and milliamperes among them. */
const isPlain = (text: string) =>
  (text.match(/[^\s,;/()]+/g) ?? []).every(
    (w) =>
      isPlainWord(w) || typeIn(w) !== undefined || /^(?:\d+(?:[.,]\d+)?)?(?:V|[mµ]?A|[kM]?Hz|Ω)?$/.test(w),
  )

/** The words of a cell with their places. */
const wordsOf = (cell: JoinedCell): { text: string; place: Place; places: Place[] }[] =>
  [...cell.text.matchAll(/[^\s,;/|·•()[\]{}]+/g)].map((m) => ({
    text: m[0],
    place: placeIn(cell, m.index, m.index + m[0].length),
    places: placesIn(cell, m.index, m.index + m[0].length),
  }))
/** Footnote marks behind a name: (1), *, ¹. */
const marksOf = (cell: JoinedCell): Place[] =>
  [...cell.text.matchAll(/[([]\d{1,2}[)\]]|[¹²³⁴⁵⁶⁷⁸⁹⁰†‡§*]+/g)].map((m) =>
    placeIn(cell, m.index, m.index + m[0].length),
  )

export const classesOf = ({ read, layout, dropped, elsewhere }: GridRead, classes: Classes): void => {
  for (const [line, kind] of Object.entries(read.kinds)) {
    const n = Number(line)
    if (kind === 'heading') classes.tellLine(n, 'heading')
    else if (kind === 'footnote') classes.tellLine(n, 'note')
    else if (kind === 'open') classes.tellLine(n, 'open')
    else if (kind === 'page' || kind === 'section') {
      classes.tellLine(n, 'furniture')
      // A port’s name in it is no furniture: a leg may have been missed.
      for (const w of classes.wordsIn(n)) if (isPort(bareName(w.text))) classes.tell(w.place, 'open')
    }
  }
  const roles = new Map<number, Column>(read.columns.map((c) => [c.index, c]))
  const found = new Set(read.legs.flatMap((l) => l.functions.map((f) => keyOf(f.place))))
  const known = new Set(
    read.legs.flatMap((l) => [l.id, ...l.functions.map((f) => bareName(f.text).toUpperCase())]),
  )
  const names = read.columns.filter((c) => c.role === 'name').map((c) => c.index)
  const onLine = new Map<number, string[]>()
  for (const l of read.legs)
    for (const p of l.places) onLine.set(p.line, [...(onLine.get(p.line) ?? []), l.id])
  for (const row of layout.rows) {
    const own = new Set(
      dropped.has(row)
        ? []
        : [
            ...names.flatMap((c) => nameIn(row.cells[c]?.text ?? '')?.id ?? []),
            ...row.lines.flatMap((n) => onLine.get(n) ?? []),
          ],
    )
    row.cells.forEach((cell, c) => {
      // Of a row that is no leg’s, words are for people and the rest is not understood.
      const column = dropped.has(row) ? undefined : roles.get(c)
      if (cell.text !== '') tellCell(cell, column, { classes, legend: layout.legend, found, known, own })
    })
  }
  const used = new Set(read.legs.flatMap((l) => l.places.map((p) => p.line)))
  for (const row of elsewhere)
    // What it says is of a leg that this package has not.
    if (!row.lines.some((n) => used.has(n)))
      for (const cell of row.cells)
        for (const w of wordsOf(cell)) w.places.forEach((p) => classes.tell(p, 'words'))
  for (const leg of read.legs) {
    for (const f of leg.functions) classes.tell(f.place, 'function')
    for (const place of leg.leftOut ?? []) classes.tell(place, 'words')
  }
}

const keyOf = ({ line, from }: Place) => `${line}:${from}`
interface Told {
  classes: Classes
  legend: TypeCodes
  /** Where functions were found. */
  found: Set<string>
  /** Names of all legs and functions that were read. */
  known: ReadonlySet<string>
  /** Names of the row’s own legs. */
  own: ReadonlySet<string>
}

const tellCell = (
  cell: JoinedCell,
  column: Column | undefined,
  { classes, legend, found, known, own }: Told,
): void => {
  const words = wordsOf(cell)
  const tell = (is: Parameters<Classes['tell']>[1], all = words) =>
    all.forEach((w) => w.places.forEach((p) => classes.tell(p, is)))
  for (const place of marksOf(cell)) classes.tell(place, 'mark')
  // A name broken over two lines is one function at both its places.
  for (const w of words)
    if (w.places.length > 1 && found.has(keyOf(w.place))) w.places.forEach((p) => classes.tell(p, 'function'))
  switch (column?.role) {
    case 'legs':
      return tell(legsIn(cell.text) ? 'leg' : 'open')
    case 'name': {
      const id = nameIn(cell.text)?.id
      const range = namesInRange(cell.text) !== undefined
      const none = typeByName(cell.text) === 'none'
      return words.forEach((w) => {
        if (/^\d{1,2}$/.test(w.text)) return
        const called = bareName(w.text).toUpperCase()
        const name = range || none || called === id || own.has(called)
        if (name || isPlainWord(w.text)) w.places.forEach((p) => classes.tell(p, name ? 'name' : 'words'))
        else if (id === undefined || tokensOf(w.text).every((t) => bareName(t.text).toUpperCase() !== id))
          w.places.forEach((p) => classes.tell(p, 'open', false))
        // Joined by hyphens: what of it is a function is told by the leg.
        else w.places.forEach((p) => classes.tell(p, 'name'))
      })
    }
    case 'type':
      return tell(typeIn(cell.text, legend) ? 'type' : 'open')
    case 'number':
    case 'label':
    case 'position':
      return tell('number')
    case 'selects':
      return tell('number')
    case 'rail':
    case 'unit':
      return tell(column.role === 'rail' ? 'type' : 'function')
    case 'nothing': {
      const said = sentence(cell.text) || (column.sure === 1 && column.heading !== '') || isPlain(cell.text)
      // Words for people may name functions that stand nowhere else.
      return words.forEach((w) => {
        const missed = isFunctionName(w.text) && !known.has(bareName(w.text).toUpperCase())
        w.places.forEach((p) => classes.tell(p, said && !missed ? 'words' : 'open'))
      })
    }
    default:
      return words.forEach((w) => {
        const read = readToken(w.text)
        if (own.has(bareName(w.text).toUpperCase())) w.places.forEach((p) => classes.tell(p, 'name', false))
        else if (isPlainWord(w.text)) w.places.forEach((p) => classes.tell(p, 'words', false))
        else if (read && !('function' in read)) w.places.forEach((p) => classes.tell(p, 'function', false))
        else if (bareName(w.text) !== '') w.places.forEach((p) => classes.tell(p, 'open', false))
      })
  }
}
