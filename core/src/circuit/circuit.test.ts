import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { makeNetlist, netOf, type Placed, preferred, stockOf } from '.'

const part = (ref: string, ...nets: string[]): Placed => ({
  ref,
  legs: nets.map((net, i) => ({ name: String(i + 1), net })),
})

test.each([
  ['Display SDA', 'DISPLAY_SDA'],
  ['Tür 2', 'TUR_2'],
  ['Straße', 'STRASSE'],
  ['Smørrebrød', 'SMORREBROD'],
  ['  -- ', 'LINE'],
  ['Лампа', 'LINE'],
  // No name in C begins with a digit.
  ['7 segments', 'N7_SEGMENTS'],
])('the net of “%s” is %s', (name, net) => {
  expect(netOf(name)).toBe(net)
})

describe('netlist', () => {
  test('legs that are joined to nothing do not meet', () =>
    expect(makeNetlist([part('U1', '', 'A'), part('U2', '', 'A')]).map((n) => n.name)).toEqual(['A']))
  test('legs of one net meet; a net of one leg is none', () =>
    expect(makeNetlist([part('R1', 'A', 'B'), part('R2', 'B', 'C'), part('C1', 'C', 'B')])).toEqual([
      {
        name: 'B',
        nodes: [
          { ref: 'R1', terminal: '2' },
          { ref: 'R2', terminal: '1' },
          { ref: 'C1', terminal: '2' },
        ],
      },
      {
        name: 'C',
        nodes: [
          { ref: 'R2', terminal: '2' },
          { ref: 'C1', terminal: '1' },
        ],
      },
    ]))
  test('a bridged part joins its nets under the first name, also in a row', () => {
    const bridged = (p: Placed): Placed => ({ ...p, bridged: true })
    const nets = makeNetlist([
      part('U1', 'A'),
      bridged(part('R1', 'A', 'B')),
      bridged(part('R2', 'B', 'C')),
      part('D1', 'C'),
    ])
    expect(nets).toEqual([
      {
        name: 'A',
        nodes: [
          { ref: 'U1', terminal: '1' },
          { ref: 'D1', terminal: '1' },
        ],
      },
    ])
  })
  test('two bridges in a ring are no endless loop', () => {
    const ring = [
      part('X', 'A'),
      part('Y', 'B'),
      { ...part('R1', 'A', 'B'), bridged: true },
      { ...part('R2', 'B', 'A'), bridged: true },
    ]
    expect(makeNetlist(ring)[0]!.nodes).toHaveLength(2)
  })
  test('whatever is placed, no terminal is lost from a net of two and none is doubled', () => {
    const net = fc.constantFrom('A', 'B', 'C', 'D')
    fc.assert(
      fc.property(fc.array(fc.tuple(net, net), { minLength: 1, maxLength: 12 }), (pairs) => {
        const placed = pairs.map(([a, b], i) => part(`R${i}`, a, b))
        const nodes = makeNetlist(placed).flatMap((n) => n.nodes.map((x) => `${x.ref} ${x.terminal}`))
        const expected = ['A', 'B', 'C', 'D'].flatMap((n) => {
          const on = placed.flatMap((p) => p.legs.filter((l) => l.net === n).map((l) => `${p.ref} ${l.name}`))
          return on.length > 1 ? on : []
        })
        expect(nodes.sort()).toEqual(expected.sort())
      }),
    )
  })
})

describe('preferred values from stock', () => {
  const stock = stockOf(shippedLibrary())
  test.each([
    [602, 'up', 680, '680R'],
    [602, 'nearest', 560, '560R'],
    [602, 'down', 560, '560R'],
    [1e-9, 'up', 1, '1R'],
    [1e12, 'down', 10e6, '10M'],
  ] as const)('%d Ω %s is %d', (value, which, chosen, marking) =>
    expect(preferred(stock.resistors!, value, which)).toEqual({ value: chosen, unit: 'Ω', marking }),
  )
  test('capacitors come in their own series', () => {
    expect(preferred(stock.ceramics!, 26e-12, 'nearest').marking).toBe('27p')
    // electrolytics in E6: 22 µF, then 33 µF
    expect(preferred(stock.electrolytics!, 23e-6, 'up').marking).toBe('33u')
  })
  test('of each sort the cheapest of the library, in whatever order it lists them', () => {
    const { parts } = shippedLibrary()
    const [r, c, e] = ['resistors', 'ceramics', 'electrolytics'].map((k) => stock[k as 'resistors']!.id)
    const with_ = (changed: [string, string, number][]) =>
      stockOf({
        parts: Object.fromEntries([
          ...Object.entries(parts),
          ...changed.map(([id, like, price]) => [id, { ...parts[like]!, id, price } as never]),
        ]),
      })
    const dear = with_([
      ['dear-r', r!, 9],
      ['dear-c', c!, 9],
      ['dear-e', e!, 9],
    ])
    expect([dear.resistors!.id, dear.ceramics!.id, dear.electrolytics!.id]).toEqual([r, c, e])
    const cheap = with_([
      ['cheap-r', r!, 0.001],
      ['cheap-c', c!, 0.001],
      ['cheap-e', e!, 0.0005],
    ])
    expect([cheap.resistors!.id, cheap.ceramics!.id, cheap.electrolytics!.id]).toEqual([
      'cheap-r',
      'cheap-c',
      'cheap-e',
    ])
  })
  test('an empty drawer gives nothing', () => expect(stockOf({ parts: {} })).toEqual({}))
})
