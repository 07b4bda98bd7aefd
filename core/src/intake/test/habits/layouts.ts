// The layouts in which tables of legs come out of document viewers, web pages, spreadsheets and programs.

import type { HabitLeg } from './chip'
import {
  dressed,
  inOrder,
  rowsOf,
  saidOf,
  type Sheet,
  shownFunctions,
  shownName,
  shownType,
  withOddities,
} from './sheet'

export interface Layout {
  id: string
  /** How many numbers select functions; 0 for none. */
  selected?: number
  write: (s: Sheet) => string
}
type Cells = string[]
interface Column {
  head: string
  cell: (row: { n: number; numbers: string }, leg: HabitLeg) => string
}

/** The columns of one sheet, in one of the usual orders. */
const columnsOf = (s: Sheet): Column[] => {
  const { d, words } = s
  const number: Column = { head: d.one(words.leg), cell: (row) => row.numbers }
  const name: Column = { head: d.one(words.name), cell: (_, l) => shownName(s, l) }
  const type: Column = { head: d.one(words.type), cell: (_, l) => shownType(s, l) }
  const functions: Column = { head: d.one(words.functions), cell: (_, l) => shownFunctions(s, l) }
  const about: Column = { head: d.one(words.about), cell: (_, l) => saidOf(s, l) }
  const typed = s.hasType ? [type] : []
  const said = s.hasAbout ? [about] : []
  const code: Column[] = s.code
    ? [
        {
          head: s.code.head,
          cell: (row, l) => (l.type === 'io' ? s.code!.values[row.n % s.code!.values.length]! : s.empty),
        },
      ]
    : []
  return d.one([
    [number, name, ...typed, ...code, functions, ...said],
    [number, name, ...typed, ...said, functions, ...code],
    [name, number, ...typed, functions, ...said],
    [number, ...typed, name, functions, ...said],
    [name, ...typed, functions, number],
  ])
}
const gridOf = (s: Sheet, columns = columnsOf(s)): { head: Cells; rows: Cells[]; columns: Column[] } => ({
  columns,
  head: columns.map((c) => c.head),
  rows: rowsOf(s).map((row) => columns.map((c) => c.cell(row, row.leg))),
})
/** Rows cut into pages, each with its head again and the page’s own lines. */
const paged = (s: Sheet, head: string[], rows: string[]): string[] => {
  const { d } = s
  const each = d.one([rows.length, rows.length, 18, 25])
  if (each >= rows.length) return [...(d.chance(0.9) ? head : []), ...rows]
  const foot = d.one([
    (page: number) => [`Rev. 3 — May            ${page} / 118`],
    (page: number) => [`WK204 data sheet, issue 7, page ${page}`],
    (page: number) => ['', `Page ${page} of 96`, ''],
    (page: number) => [`${page}`, 'Preliminary information, subject to change without notice'],
  ])
  const again = d.one([head, head, ['Table 4 (continued)', ...head]])
  return Array.from({ length: Math.ceil(rows.length / each) }, (_, i) => [
    ...(i === 0 ? head : [...foot(30 + i), ...again]),
    ...rows.slice(i * each, (i + 1) * each),
  ]).flat()
}
/** Rows that part a table, as groups of one kind do. */
const parted = (s: Sheet, rows: string[], cells: number, mark: string): string[] => {
  if (!s.sections) return rows
  const fill = mark === '\t' || mark === ';' ? mark.repeat(cells - 1) : ''
  return rows.flatMap((r, i) =>
    i % 9 === 0 ? [`${s.d.one(['Port pins', 'Power', 'Group B'])}${fill}`, r] : [r],
  )
}
const quoted = (cell: string, mark: string) =>
  cell.includes(mark) || cell.includes('"') || cell.includes('\n') ? `"${cell.replaceAll('"', '""')}"` : cell
const bySeparator = (mark: string) => (s: Sheet) => {
  const { head, rows } = gridOf(s)
  const line = (cells: Cells) => cells.map((c) => (mark === '\t' ? c : quoted(c, mark))).join(mark)
  return dressed(s, paged(s, [line(head)], parted(s, rows.map(line), head.length, mark)), s.hasType).join(
    '\n',
  )
}
/** How wide a text shows: lines over letters take no room. */
const shown = (text: string) => [...text.replaceAll('\u0305', '')].length
const padded = (rows: Cells[], gap = 2): string[] => {
  const widths = rows[0]!.map((_, c) => Math.max(...rows.map((r) => shown(r[c] ?? ''))))
  return rows.map((r) =>
    r
      .map((t, c) => t + ' '.repeat(widths[c]! + gap - shown(t)))
      .join('')
      .trimEnd(),
  )
}
/** Long cells of functions broken into lines of their own, as narrow columns do. */
const broken = (s: Sheet, { head, rows, columns }: ReturnType<typeof gridOf>): Cells[] => {
  const at = columns.findIndex((c) => s.words.functions.includes(c.head))
  const cut = s.d.one([1, 2])
  return [
    head,
    ...rows.flatMap((cells) => {
      const pieces = cells[at]!.split(/(?<=[,;/])\s*/)
      if (pieces.length <= cut || s.between === ' ') return [cells]
      const lines = Array.from({ length: Math.ceil(pieces.length / cut) }, (_, i) =>
        pieces.slice(i * cut, (i + 1) * cut).join(s.between === '/' ? '' : ' '),
      )
      return lines.map((text, i) => cells.map((c, column) => (column === at ? text : i === 0 ? c : '')))
    }),
  ]
}
const columnText = (s: Sheet, breaks: boolean) => {
  const grid = gridOf(s)
  const [head, ...lines] = padded(breaks ? broken(s, grid) : [grid.head, ...grid.rows], s.d.one([2, 3, 4]))
  return dressed(s, paged(s, [head!], lines), s.hasType).join('\n')
}

const spaced = (s: Sheet): string => {
  const { d } = s
  const typed = s.hasType && Object.values(s.types).every((t) => !/\s/.test(t))
  const line = (n: number, leg: HabitLeg) =>
    [n, shownName(s, leg), ...(typed ? [shownType(s, leg)] : []), ...leg.functions.map((f) => f.text)].join(
      ' ',
    )
  const head = [
    d.one(s.words.leg),
    d.one(s.words.name),
    ...(typed ? [d.one(s.words.type)] : []),
    d.one(s.words.functions),
  ]
  return dressed(
    s,
    paged(
      s,
      [head.join(' ')],
      inOrder(s.chip).map((x) => line(x.n, x.leg)),
    ),
    typed,
  ).join('\n')
}

const bars = (s: Sheet): string => {
  const { head, rows } = gridOf(s)
  const clean = (c: string) => c.replaceAll('|', '/')
  const ruled = s.d.upTo(3)
  if (ruled === 0) {
    // As a text processor draws it.
    const lines = padded([head, ...rows], 0)
    const widths = head.map((_, c) => Math.max(...[head, ...rows].map((r) => shown(r[c]!))))
    const rule = (mark: string) => `+${widths.map((w) => mark.repeat(w + 2)).join('+')}+`
    const row = (cells: Cells) =>
      `|${cells.map((t, c) => ` ${t}${' '.repeat(widths[c]! - shown(t))} `).join('|')}|`
    return dressed(
      s,
      [rule('-'), row(head), rule('='), ...rows.flatMap((r) => [row(r), rule('-')])].slice(
        0,
        lines.length * 2 + 1,
      ),
      s.hasType,
    ).join('\n')
  }
  const row = (cells: Cells) => `| ${cells.map(clean).join(' | ')} |`
  const rule = ruled === 1 ? `|${head.map(() => '---').join('|')}|` : `|${head.map(() => ':--:').join('|')}|`
  return dressed(s, [row(head), rule, ...rows.map(row)], s.hasType).join('\n')
}

const halves = (s: Sheet): string => {
  const { d } = s
  const lines = inOrder(s.chip)
  const half = Math.ceil(lines.length / 2)
  const cells = (x: (typeof lines)[number] | undefined) =>
    x ? [String(x.n), shownName(s, x.leg), shownFunctions(s, x.leg)] : ['', '', '']
  const heads = [d.one(s.words.leg), d.one(s.words.name), d.one(s.words.functions)]
  const rows = [
    [...heads, ...heads],
    ...lines.slice(0, half).map((x, i) => [...cells(x), ...cells(lines[half + i])]),
  ]
  const body = d.chance(0.5) ? rows.map((r) => r.join('\t')) : padded(rows, 3)
  return dressed(s, body, false).join('\n')
}

/** A package seen from above, its legs at both sides, counting down on the left and up on the right. */
const drawn = (s: Sheet): string => {
  const { d } = s
  const label = (leg: HabitLeg) => [shownName(s, leg), ...leg.functions.map((f) => f.text)].join('/')
  const all = inOrder(s.chip)
  const half = Math.floor(all.length / 2)
  const left = all.slice(0, half)
  const right = all.slice(half).reverse()
  const wide = Math.max(...left.map((x) => shown(label(x.leg))))
  const art = d.one([
    { top: '+----\\_/----+', l: '|', r: '|', foot: '+-----------+', gap: ' '.repeat(11) },
    { top: ' ____  ____ ', l: '-|', r: '|-', foot: ' __________ ', gap: ' '.repeat(9) },
    { top: '┌───U───┐', l: '┤', r: '├', foot: '└───────┘', gap: ' '.repeat(7) },
    { top: '.---------.', l: '[', r: ']', foot: "'---------'", gap: ' '.repeat(9) },
  ])
  const inside = d.chance(0.6)
  const pad = (t: string, n: number) => ' '.repeat(Math.max(0, n - shown(t))) + t
  const row = (i: number) => {
    const [a, b] = [left[i]!, right[i]!]
    const [na, nb] = [String(a.n), String(b.n)]
    return inside
      ? `${pad(label(a.leg), wide)} ${art.l} ${na.padEnd(3)}${art.gap.slice(6)}${pad(nb, 3)} ${art.r} ${label(b.leg)}`
      : `${pad(label(a.leg), wide)} ${pad(na, 3)} ${art.l}${art.gap}${art.r} ${nb.padEnd(3)} ${label(b.leg)}`
  }
  return [
    ...(s.title ? [`${s.chip.count}-pin package, top view`] : []),
    ' '.repeat(wide + 2) + art.top,
    ...left.map((_, i) => row(i)),
    ' '.repeat(wide + 2) + art.foot,
  ].join('\n')
}

/** A whole column, then the next: what a viewer gives when a table is marked column by column. */
const stacked = (s: Sheet): string => {
  const { head, rows } = gridOf({ ...s, hasAbout: false, empty: s.empty || '-' })
  return head.flatMap((h, c) => [h, ...rows.map((r) => r[c] || '-')]).join('\n')
}
const cellALine = (s: Sheet): string => {
  const { d } = s
  const rows = inOrder(s.chip).map(({ n, leg }) => [
    String(n),
    shownName(s, leg),
    ...(s.hasType ? [shownType(s, leg)] : []),
    shownFunctions({ ...s, empty: s.empty || '-' }, leg),
  ])
  const head = [
    d.one(s.words.leg),
    d.one(s.words.name),
    ...(s.hasType ? [d.one(s.words.type)] : []),
    d.one(s.words.functions),
  ]
  return [...(d.chance(0.7) ? head : []), ...rows.flat()].join('\n')
}

/** Records as programs keep them. */
const records = (s: Sheet): string => {
  const { d } = s
  const all = inOrder(s.chip)
  const bare = (leg: HabitLeg) => shownName({ ...s, footnotes: [], marked: new Set() }, leg)
  const list = (leg: HabitLeg) => leg.functions.map((f) => f.text)
  switch (d.upTo(5)) {
    case 0:
      return JSON.stringify(
        all.map(({ n, leg }) => ({ pin: n, name: bare(leg), type: shownType(s, leg), functions: list(leg) })),
        null,
        d.one([0, 2]),
      )
    case 1:
      return all
        .map(({ n, leg }) => `- pin: ${n}\n  name: ${bare(leg)}\n  functions: [${list(leg).join(', ')}]`)
        .join('\n')
    case 2:
      return `<package>\n${all
        .map(({ n, leg }) => `  <pin number="${n}" name="${bare(leg)}" functions="${list(leg).join(' ')}"/>`)
        .join('\n')}\n</package>`
    case 3:
      return all
        .map(
          ({ n, leg }) =>
            `  { .leg = ${n}, .name = "${bare(leg)}", .alt = { ${list(leg)
              .map((x) => `"${x}"`)
              .join(', ')} } },`,
        )
        .join('\n')
    default:
      return all
        .map(({ n, leg }) =>
          [
            `Pin: ${n}`,
            `Name: ${bare(leg)}`,
            ...(leg.functions.length > 0 ? [`Functions: ${list(leg).join(', ')}`] : []),
            '',
          ].join('\n'),
        )
        .join('\n')
  }
}
const webTable = (s: Sheet): string => {
  const { head, rows } = gridOf({ ...s, empty: s.empty || '&nbsp;' })
  const marked = (c: string) =>
    c
      .replace(/&(?!nbsp;)/g, '&amp;')
      .replace(/\((\d)\)$/, '<sup>$1</sup>')
      .replaceAll('; ', '<br>')
  const cell = (tag: string) => (c: string) => `<${tag}>${marked(c)}</${tag}>`
  const row = (tag: string, cells: Cells) => `<tr>${cells.map(cell(tag)).join('')}</tr>`
  return `<table class="pins">\n<thead>${row('th', head)}</thead>\n<tbody>\n${rows.map((r) => row('td', r)).join('\n')}\n</tbody>\n</table>`
}

const paragraphs = (s: Sheet): string => {
  const { d } = s
  const all = inOrder(s.chip)
  const also = (leg: HabitLeg) => leg.functions.map((f) => f.text)
  const joined = (list: string[]) =>
    list.length < 2 ? list.join('') : `${list.slice(0, -1).join(', ')} and ${list[list.length - 1]}`
  const what = (leg: HabitLeg) =>
    ({
      io: 'general-purpose input or output',
      input: 'active-low reset input',
      supply: 'supply voltage',
      ground: 'ground',
      reference: 'reference of the converter',
    })[leg.type] ?? 'not connected'
  const write = d.one([
    (n: number, l: HabitLeg) =>
      `Pin ${n}, ${shownName(s, l)}: ${what(l)}.${l.functions.length > 0 ? ` It can also be used as ${joined(also(l))}.` : ''}`,
    (n: number, l: HabitLeg) =>
      `${shownName(s, l)} (pin ${n}). This is the ${what(l)}.${l.functions.length > 0 ? ` Alternate functions: ${also(l).join(', ')}.` : ''}`,
    (n: number, l: HabitLeg) =>
      `${n}. ${shownName(s, l)} – ${what(l)}${l.functions.length > 0 ? `; also serves ${joined(also(l))}` : ''}.`,
  ])
  const wrapped = (text: string) => {
    const lines: string[] = []
    for (const word of text.split(' ')) {
      const last = lines[lines.length - 1]
      if (last !== undefined && last.length + word.length < 62) lines[lines.length - 1] = `${last} ${word}`
      else lines.push(word)
    }
    return lines
  }
  const wrap = d.chance(0.5)
  return all.flatMap(({ n, leg }) => [...(wrap ? wrapped(write(n, leg)) : [write(n, leg)]), '']).join('\n')
}
/** A name, then its functions below it, a block for each leg. */
const blocks = (s: Sheet): string =>
  inOrder(s.chip)
    .map(({ n, leg }) =>
      [`${shownName(s, leg)} (${n})`, ...leg.functions.map((f) => `    ${f.text}`)].join('\n'),
    )
    .join(s.d.chance(0.5) ? '\n\n' : '\n')

/** A row for each function of each leg; the leg stands in the first of its rows, or in all. */
const rowAFunction = (s: Sheet): string => {
  const { d, words } = s
  const all = d.chance(0.5)
  const rows = inOrder(s.chip).flatMap(({ n, leg }) => {
    const lead = [String(n), shownName(s, leg)]
    if (leg.functions.length === 0) return [[...lead, s.empty]]
    return leg.functions.map((f, i) => [...(all || i === 0 ? lead : ['', '']), f.text])
  })
  const table = [
    [d.one(words.leg), d.one(words.name), d.one(['Function', 'Signal', 'Peripheral signal'])],
    ...rows,
  ]
  return dressed(s, d.chance(0.5) ? table.map((r) => r.join('\t')) : padded(table, 3), false).join('\n')
}

/** A matrix of functions by the number that selects them. */
const matrix = (form: 'tab' | 'aligned' | 'spaced' | 'two-headings') => (s: Sheet) => {
  const { d, words } = s
  const count = 8
  const head = d.one(['AF', 'ALT', 'Function ', 'F'])
  const blank = form === 'spaced' ? s.d.one(['-', '–', '—']) : s.empty
  const cells = (leg: HabitLeg) =>
    Array.from({ length: count }, (_, i) => leg.functions.find((f) => f.select === i)?.text ?? blank)
  const rows = inOrder(s.chip).map(({ n, leg }) => [String(n), shownName(s, leg), ...cells(leg)])
  const numbers = Array.from({ length: count }, (_, i) => `${head}${i}`)
  const first = [d.one(words.leg), d.one(words.name)]
  if (form === 'spaced')
    return [
      [...first, ...numbers].map((h) => h.replaceAll(' ', '')).join(' '),
      ...rows.map((r) => r.join(' ')),
    ].join('\n')
  const heads =
    form === 'two-headings'
      ? [
          [
            '',
            '',
            d.one(['Alternate function', 'Multiplexer setting']),
            ...Array.from({ length: count - 1 }, () => ''),
          ],
          [...first, ...Array.from({ length: count }, (_, i) => String(i))],
        ]
      : [[...first, ...numbers]]
  const table = [...heads, ...rows]
  return dressed(
    s,
    form === 'tab' || form === 'two-headings' ? table.map((r) => r.join('\t')) : padded(table, 2),
    false,
  ).join('\n')
}

/** A column of leg numbers for each of several packages; the first is the one that the builder has. */
const packages = (s: Sheet): string => {
  const { d, words, chip } = s
  const smaller = Math.max(6, Math.floor(chip.count * 0.75))
  const other = new Map<number, number>()
  d.some(
    Array.from({ length: chip.count }, (_, i) => i + 1),
    smaller,
  ).forEach((n, i) => other.set(n, i + 1))
  const dash = s.empty || '-'
  const style = d.one(['QFP', 'QFN', 'SOIC', 'Flat-'])
  const table = [
    [
      `${style}${chip.count}`,
      `${style}${smaller}`,
      d.one(words.name),
      ...(s.hasType ? [d.one(words.type)] : []),
      d.one(words.functions),
    ],
    ...inOrder(chip).map(({ n, leg }) => [
      String(n),
      String(other.get(n) ?? dash),
      shownName(s, leg),
      ...(s.hasType ? [shownType(s, leg)] : []),
      shownFunctions(s, leg),
    ]),
  ]
  return dressed(s, d.chance(0.5) ? table.map((r) => r.join('\t')) : padded(table, 3), s.hasType).join('\n')
}

/** Default, alternate and remapped functions in columns of their own. */
const remaps = (s: Sheet): string => {
  const { d, words, chip } = s
  const parts = (leg: HabitLeg) => {
    const texts = leg.functions.map((f) => f.text)
    const cut = d.upTo(texts.length + 1)
    return [texts.slice(0, cut).join(s.between) || s.empty, texts.slice(cut).join(s.between) || s.empty]
  }
  const table = [
    [d.one(words.leg), d.one(words.name), 'Default', d.one(['Remap', 'Alternate'])],
    ...inOrder(chip).map(({ n, leg }) => [String(n), shownName(s, leg), ...parts(leg)]),
  ]
  return dressed(s, d.chance(0.5) ? table.map((r) => r.join('\t')) : padded(table, 3), false).join('\n')
}

/** Everything a leg can be in its name, joined by hyphens, slashes or brackets. */
const longNames = (s: Sheet): string => {
  const { d } = s
  const mark = d.one(['/', '-', ' / ', '('])
  const whole = (leg: HabitLeg) => {
    const rest = leg.functions.map((f) => f.text)
    if (rest.length === 0) return shownName(s, leg)
    return mark === '('
      ? `${shownName(s, leg)} (${rest.join(', ')})`
      : [shownName(s, leg), ...rest].join(mark)
  }
  const rows = [
    [d.one(s.words.leg), d.one(s.words.name)],
    ...inOrder(s.chip).map(({ n, leg }) => [String(n), whole(leg)]),
  ]
  return dressed(
    s,
    d.one([() => rows.map((r) => r.join('\t')), () => padded(rows, 3), () => rows.map((r) => r.join(' '))])(),
    false,
  ).join('\n')
}

/** A cell for each function, without heads: as long as each row needs. */
const ragged = (s: Sheet): string => {
  const mark = s.d.one([',', '\t', ';'])
  return inOrder(s.chip)
    .map(({ n, leg }) => [n, shownName(s, leg), ...leg.functions.map((f) => f.text)].join(mark))
    .join('\n')
}
/** Functions with a space in them, parted by commas: UART1 TX, TMR1 CH2. */
const spacedFunctions = (s: Sheet): string => {
  const loose = (text: string) => text.replace(/(?<=\d)[_.:](?=[A-Z])/, ' ')
  const rows = [
    [s.d.one(s.words.leg), s.d.one(s.words.name), s.d.one(s.words.functions)],
    ...inOrder(s.chip).map(({ n, leg }) => [
      s.number(n),
      shownName(s, leg),
      leg.functions.map((f) => loose(f.text)).join(', ') || s.empty,
    ]),
  ]
  return dressed(s, s.d.chance(0.5) ? rows.map((r) => r.join('\t')) : padded(rows, 3), false).join('\n')
}
/** A row for each property, a column for each leg, so many legs at a time. */
const across = (s: Sheet): string => {
  const all = inOrder(s.chip)
  const each = s.d.one([4, 6, 8])
  const heads = [s.d.one(s.words.leg), s.d.one(s.words.name), s.d.one(s.words.functions)]
  const tabs = s.d.chance(0.5)
  return Array.from({ length: Math.ceil(all.length / each) }, (_, i) => {
    const part = all.slice(i * each, (i + 1) * each)
    const rows = [
      [heads[0]!, ...part.map((x) => String(x.n))],
      [heads[1]!, ...part.map((x) => shownName(s, x.leg))],
      [heads[2]!, ...part.map((x) => x.leg.functions.map((f) => f.text).join('/') || '-')],
    ]
    return (tabs ? rows.map((r) => r.join('\t')) : padded(rows, 2)).join('\n')
  }).join('\n\n')
}
/** Columns of peripherals; in the cell the channel, a name without its unit, or a mark. */
const marked = (s: Sheet): string => {
  const { d, chip } = s
  const ios = chip.legs.filter((l) => l.type === 'io' && !l.own)
  // This sheet lists converters and interrupts by number, so what the chip can do is told anew.
  ios.forEach((l) => (l.functions = []))
  chip.units = []
  const yes = d.one(['x', 'yes', '•', '✓', 'Y'])
  const no = d.one(['', '-', '–'])
  const analog = new Map(ios.filter(() => d.chance(0.5)).map((l, i) => [l, i]))
  const interrupt = new Map(ios.filter(() => d.chance(0.4)).map((l, i) => [l, i]))
  for (const [l, i] of analog) l.functions.push({ text: '', is: `ADC.IN${i}` })
  for (const [l, i] of interrupt) l.functions.push({ text: '', is: `INT.INT${i}` })
  const prefix = d.chance(0.5)
  const rows = [
    [d.one(s.words.leg), d.one(s.words.name), '5 V tolerant', 'ADC', 'Interrupt', 'Wake-up'],
    ...inOrder(chip).map(({ n, leg }) => [
      String(n),
      shownName(s, leg),
      leg.type === 'io' && n % 2 === 0 ? yes : no,
      analog.has(leg) ? `${prefix ? 'AIN' : ''}${analog.get(leg)}` : no,
      interrupt.has(leg) ? `${prefix ? 'INT' : ''}${interrupt.get(leg)}` : no,
      leg.type === 'io' && n % 3 === 0 ? yes : no,
    ]),
  ]
  return dressed(s, d.chance(0.5) ? rows.map((r) => r.join('\t')) : padded(rows, 3), false).join('\n')
}
/** A bullet for each leg. */
const bullets = (s: Sheet): string => {
  const bullet = s.d.one(['•', '-', '*', '–'])
  const list = (l: HabitLeg) => l.functions.map((f) => f.text).join(', ')
  const write = s.d.one([
    (n: number, l: HabitLeg) =>
      `${shownName(s, l)} – pin ${n}${l.functions.length > 0 ? ` – ${list(l)}` : ''}`,
    (n: number, l: HabitLeg) =>
      `Pin ${n}: ${shownName(s, l)}${l.functions.length > 0 ? ` (${list(l)})` : ''}`,
    (n: number, l: HabitLeg) => `${n}: ${[shownName(s, l), ...l.functions.map((f) => f.text)].join(', ')}`,
  ])
  return inOrder(s.chip)
    .map(({ n, leg }) => `${bullet} ${write(n, leg)}`)
    .join('\n')
}

const odd =
  (write: (s: Sheet) => string) =>
  (s: Sheet): string =>
    withOddities(s, write(s))

export const layouts: readonly Layout[] = [
  { id: 'tabs', write: odd(bySeparator('\t')) },
  { id: 'semicolons', write: odd(bySeparator(';')) },
  { id: 'commas', write: odd(bySeparator(',')) },
  { id: 'bars', write: odd(bars) },
  { id: 'aligned', write: odd((s) => columnText(s, false)) },
  { id: 'aligned, broken', write: odd((s) => columnText(s, true)) },
  { id: 'single spaces', write: odd(spaced) },
  { id: 'halves', write: odd(halves) },
  { id: 'drawing', write: odd(drawn) },
  { id: 'column after column', write: odd(stacked) },
  { id: 'a cell a line', write: odd(cellALine) },
  { id: 'records', write: records },
  { id: 'web page', write: odd(webTable) },
  { id: 'paragraphs', write: odd(paragraphs) },
  { id: 'blocks', write: odd(blocks) },
  { id: 'a row a function', write: odd(rowAFunction) },
  { id: 'matrix, tabs', selected: 8, write: odd(matrix('tab')) },
  { id: 'matrix, aligned', selected: 8, write: odd(matrix('aligned')) },
  { id: 'matrix, single spaces', selected: 8, write: odd(matrix('spaced')) },
  { id: 'matrix, two headings', selected: 8, write: odd(matrix('two-headings')) },
  { id: 'packages', write: odd(packages) },
  { id: 'default and remap', write: odd(remaps) },
  { id: 'long names', write: odd(longNames) },
  { id: 'ragged', write: odd(ragged) },
  { id: 'functions with spaces', write: odd(spacedFunctions) },
  { id: 'across', write: odd(across) },
  { id: 'marks in columns', write: odd(marked) },
  { id: 'bullets', write: odd(bullets) },
]
