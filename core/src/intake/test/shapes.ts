// A made-up chip of any number of legs, written down as a document, a spreadsheet or a drawing with bars would have it.

import { seeded } from '../../../test/seeded'
import type { ExpectedLeg, TableCase } from './expected'

interface Facts {
  legs: ExpectedLeg[]
}

const signals: readonly (readonly [string, readonly string[]])[] = [
  ['TMR1', ['CH1', 'CH2', 'CH3', 'CH4']],
  ['TMR2', ['CH1', 'CH2', 'CH3', 'CH4']],
  ['TMR3', ['CH1', 'CH2']],
  ['UART1', ['TX', 'RX']],
  ['UART2', ['TX', 'RX', 'CTS', 'RTS']],
  ['UART3', ['TX', 'RX']],
  ['I2C1', ['SDA', 'SCL']],
  ['I2C2', ['SDA', 'SCL']],
  ['SPI1', ['SCK', 'MOSI', 'MISO', 'SS']],
  ['SPI2', ['SCK', 'MOSI', 'MISO', 'SS']],
  ['CAN1', ['TX', 'RX']],
  ['QLINK1', ['SDA', 'SCL']],
  ['RTM4', ['CH1', 'CH2', 'CH3']],
]

/** `columns`: how many function numbers there are; 0 for functions that aren't selected. */
const facts = (count: number, seed: number, columns = 0): Facts => {
  const random = seeded(seed)
  const pick = (n: number) => Math.floor(random() * n)
  const legs: ExpectedLeg[] = []
  const supplies = Math.max(1, Math.floor(count / 16))
  const vdd = Array.from({ length: supplies }, (_, i) => Math.floor((i * count) / supplies) + 3)
  const vss = vdd.map((n) => n + 1)
  legs.push({ id: 'VDD', legs: vdd, type: 'supply', functions: [] })
  legs.push({ id: 'VSS', legs: vss, type: 'ground', functions: [] })
  legs.push({ id: 'NRST', legs: [1], type: 'input', functions: [] })
  let port = 0
  for (let leg = 2; leg <= count; leg++) {
    if (vdd.includes(leg) || vss.includes(leg)) continue
    const id = `P${'ABCDEFGHIJ'[Math.floor(port / 16)]}${port % 16}`
    port++
    const functions = new Map<string, string>()
    for (let n = pick(4); n >= 0 && port % 9 !== 0; n--) {
      const [unit, lines] = signals[pick(signals.length)]!
      const name = `${unit}.${lines[pick(lines.length)]!}`
      const select = columns ? `@${pick(columns)}` : ''
      const taken = [...functions.values()].includes(select) && select !== ''
      if (!functions.has(name) && !taken) functions.set(name, select)
    }
    legs.push({ id, legs: [leg], type: 'io', functions: [...functions].map(([f, s]) => f + s) })
  }
  return { legs }
}

const written = (f: string) => f.replace(/@.*/, '').replace('.', '_')
const selectOf = (f: string) => Number(f.split('@')[1])
interface Line {
  leg: number
  of: ExpectedLeg
}
const lines = ({ legs }: Facts): Line[] =>
  legs.flatMap((of) => of.legs.map((leg) => ({ leg, of }))).sort((a, b) => a.leg - b.leg)
const typeWord = (type: string) => ({ io: 'I/O', input: 'I', supply: 'P', ground: 'G' })[type] ?? '-'
const cells = (of: ExpectedLeg, columns: number) =>
  Array.from({ length: columns }, (_, i) =>
    of.functions
      .filter((f) => selectOf(f) === i)
      .map(written)
      .join('/'),
  )
const padded = (rows: string[][]): string => {
  const widths = rows[0]!.map((_, c) => Math.max(...rows.map((r) => (r[c] ?? '').length)))
  return rows
    .map((r) =>
      r
        .map((t, c) => t.padEnd(widths[c]! + 2))
        .join('')
        .trimEnd(),
    )
    .join('\n')
}
const plain = (of: ExpectedLeg, mark: string) => of.functions.map(written).join(mark)

type Shape = [name: string, legs: number, columns: number, write: (f: Facts, columns: number) => string]
const list: readonly Shape[] = [
  [
    '21-numbered-functions-24',
    24,
    8,
    (f, n) =>
      [
        ['Leg', 'Port', ...Array.from({ length: n }, (_, i) => `AF${i}`)].join('\t'),
        ...lines(f).map(({ leg, of }) => [leg, of.id, ...cells(of, n)].join('\t')),
      ].join('\n'),
  ],
  [
    '22-numbered-functions-48',
    48,
    16,
    (f, n) =>
      [
        ['pin name', 'pin', 'type', ...Array.from({ length: n }, (_, i) => i)].join(','),
        ...lines(f).map(({ leg, of }) =>
          [of.id, leg, typeWord(of.type), ...cells(of, n).map((c) => c || '-')].join(','),
        ),
      ].join('\n'),
  ],
  [
    '23-numbers-without-headings',
    32,
    6,
    (f, n) =>
      lines(f)
        .map(({ leg, of }) => [leg, of.id, ...cells(of, n)].join('\t'))
        .join('\n'),
  ],
  [
    '24-aligned-three-packages',
    64,
    0,
    (f) =>
      padded([
        ['QFP64', 'QFP48', 'DIP28', 'Signal', 'Type', 'Multiplexed functions'],
        ...lines(f).map(({ leg, of }) => [
          String(leg),
          leg <= 48 ? String(49 - leg) : '—',
          leg <= 28 ? String(29 - leg) : '—',
          of.id,
          typeWord(of.type),
          plain(of, ', '),
        ]),
      ]),
  ],
  [
    '25-semicolons-100',
    100,
    0,
    (f) =>
      [
        'Terminal;Direction;Symbol;Secondary',
        ...f.legs.map((of) => `${of.legs.join(', ')};${typeWord(of.type)};${of.id};"${plain(of, '; ')}"`),
      ].join('\r\n'),
  ],
  [
    '26-words-144',
    144,
    0,
    (f) =>
      lines(f)
        .map(({ leg, of }) => `${leg} ${of.id} ${typeWord(of.type)} ${plain(of, ' ')}`)
        .join('\n'),
  ],
  [
    '27-bars-with-pages-80',
    80,
    0,
    (f) =>
      lines(f)
        .map(({ leg, of }) => `| ${leg} | ${of.id} | ${plain(of, ' / ')} |`)
        .flatMap((line, i) =>
          i % 25 === 0
            ? [
                `MX80 data sheet, issue 7, page ${i / 25 + 31}`,
                '',
                '| Pin | Name | Functions |',
                '|---|---|---|',
                line,
              ]
            : [line],
        )
        .join('\n'),
  ],
  [
    '28-brackets-aligned-40',
    40,
    0,
    (f) =>
      padded(
        lines(f).map(({ leg, of }) => [
          `${of.id}${of.functions.length > 0 ? ` (${plain(of, '/')})` : ''}`,
          String(leg),
          typeWord(of.type),
        ]),
      ),
  ],
  [
    '29-broken-at-every-comma-28',
    28,
    0,
    (f) =>
      padded([
        ['Pin', 'Name', 'I/O', 'Functions'],
        ...lines(f).flatMap(({ leg, of }) => {
          const all = of.functions.map(written)
          return [
            [String(leg), of.id, typeWord(of.type), all[0] ? `${all[0]}${all.length > 1 ? ',' : ''}` : ''],
            ...all.slice(1).map((x, i) => ['', '', '', `${x}${i + 2 < all.length ? ',' : ''}`]),
          ]
        }),
      ]),
  ],
  [
    '30-two-halves-100',
    100,
    0,
    (f) => {
      const all = lines(f)
      const half = Math.ceil(all.length / 2)
      const row = (l: Line | undefined) => (l ? [l.leg, l.of.id, plain(l.of, ' ')] : ['', '', ''])
      return [
        'No.\tName\tFunctions\tNo.\tName\tFunctions',
        ...all.slice(0, half).map((l, i) => [...row(l), ...row(all[half + i])].join('\t')),
      ].join('\n')
    },
  ],
]

export const shapes = (): TableCase[] =>
  list.map(([name, count, columns, write], i) => {
    const made = facts(count, i + 40, columns)
    return {
      name,
      text: write(made, columns),
      options: {},
      expected: made.legs,
      answers: { package: '0', 'kind:RTM': 'timer', 'kind:QLINK': 'i2c', select: 'zero' },
      marked: [['NRST', 'reset']],
      units: [
        ['RTM4', 'timer'],
        ['QLINK1', 'i2c'],
        ['UART2', 'uart'],
      ],
    }
  })
