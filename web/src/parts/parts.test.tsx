// The library's pages by what they show: pasted text linked with what was understood, questions, facts and differences,
// the editor's fields with their faults.

import { readTable } from '@root-board/core/intake'
import { type Fault, FaultyFile, findPart, type PartKind, pathText, readPart } from '@root-board/core/parts'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'
import { MemoryRouter } from 'react-router'
import { library } from '../../test/stage'
import { partsIn } from './BringLibrary'
import { Completeness } from './Completeness'
import { Differences } from './Differences'
import { blank, type Json, stated, valueAt, withValue } from './edit/data'
import { SheetForm } from './edit/SheetForm'
import { FileBeside } from './edit/FileBeside'
import { factText } from './fact-text'
import { pathWords } from './names'
import { Facts } from './Facts'
import { PackageDrawing } from './PackageDrawing'
import type { PasteDraft } from './paste/draft'
import { FoundLegs, placesOf } from './paste/FoundLegs'
import { NotUnderstood } from './paste/NotUnderstood'
import { rulesFile, useRules } from './paste/own-rules'
import { OwnRules } from './paste/OwnRules'
import { Questions } from './paste/Questions'
import { resultOf } from './paste/result'
import { SourceText } from './paste/SourceText'

const text = '1 PB3 (ADC3/TB1/INT3)\n2 GND\n3 PB4 (ADC2/TB2)\n4 VCC'
const chip = findPart(library, 'chip', 'td8-28-dip')!
const led = findPart(library, 'led', 'led-red')!

describe('paste', () => {
  const table = readTable(text)
  test('a leg shows where each of its names stands, and a line shows its leg', () => {
    const chosen: number[] = []
    const leg = table.legs.find((l) => l.id === 'PB3')!
    render(
      <SourceText
        text={text}
        kinds={table.kinds}
        marked={placesOf(leg)}
        open={[{ line: 3, from: 2, to: 5 }]}
        choose={(line) => chosen.push(line)}
      />,
    )
    const marks = [...document.querySelectorAll('mark')].map((m) => m.textContent)
    expect(marks).toEqual(['PB3 (ADC3/TB1/INT3)'])
    expect(document.querySelectorAll('li.here')).toHaveLength(1)
    expect(screen.getByTitle('not understood').textContent).toBe('PB4')
    fireEvent.click(screen.getByText('2 GND'))
    expect(chosen).toEqual([2])
  })
  test('what its form doesn’t tell is marked by a word, not by colour, and asked', () => {
    const shown: string[] = []
    const given: object[] = []
    render(
      <FoundLegs
        table={table}
        chosen={undefined}
        choose={(key) => shown.push(key)}
        answers={{}}
        answer={(a) => given.push(a)}
      />,
    )
    const row = screen.getByRole('row', { name: /PB3/ })
    expect(row.textContent).toContain('TB.TB1?')
    fireEvent.click(within(row).getByRole('button', { name: 'PB3' }))
    expect(shown).toEqual(['PB3 1 '])
    // Corrected by hand: only what was changed is kept.
    fireEvent.click(within(row).getByRole('button', { name: 'Correct leg 1' }))
    const form = screen.getByRole('form', { name: 'Correct leg 1' })
    fireEvent.change(within(form).getByRole('textbox', { name: 'Name' }), { target: { value: 'not so' } })
    expect(within(form).getByRole('alert').textContent).toMatch(/letters, digits/)
    fireEvent.change(within(form).getByRole('textbox', { name: 'Name' }), { target: { value: 'PB5' } })
    fireEvent.change(within(form).getByRole('textbox', { name: 'Legs' }), { target: { value: 'first' } })
    expect(within(form).getByRole('alert').textContent).toMatch(/number/)
    fireEvent.change(within(form).getByRole('textbox', { name: 'Legs' }), { target: { value: '1, 9' } })
    fireEvent.change(within(form).getByRole('textbox', { name: 'Functions' }), {
      target: { value: 'ADC3, ?!' },
    })
    expect(within(form).getByRole('alert').textContent).toMatch(/^No function’s name: \?!/)
    fireEvent.submit(form)
    expect(given).toEqual([])
    fireEvent.change(within(form).getByRole('textbox', { name: 'Functions' }), { target: { value: 'ADC3' } })
    fireEvent.submit(form)
    expect(given).toEqual([{ 'set:PB3:legs': '1, 9', 'set:PB3:name': 'PB5', 'set:PB3:functions': 'ADC3' }])
  })
  test('how much was not understood, where, and a rule from what was taken out by hand', () => {
    const given: object[] = []
    const shown: unknown[] = []
    const answers = { 'set:PB3:functions': 'ADC3, INT3' }
    const odd = readTable(`${text}\n5 PB5 (TB7) ?x9`, { answers })
    render(
      <NotUnderstood
        table={odd}
        answers={answers}
        answer={(a) => given.push(a)}
        show={(p) => shown.push(p)}
      />,
    )
    expect(screen.getByText('One word is not understood.')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Show it' }))
    expect(shown).toEqual([[expect.objectContaining({ line: 5, from: 12, to: 15 })]])
    // TB1 was taken out of leg 1 and stands at PB4 and PB5 still.
    fireEvent.click(screen.getByRole('button', { name: 'Leave TB out everywhere' }))
    expect(given).toEqual([{ ...answers, 'kind:TB': 'none' }])
  })
  test('rules of earlier sheets are listed, taken back, and brought by a file that is one', async () => {
    useRules.getState().keep({ 'kind:ZK': 'none', 'word:QQ': 'timer', 'set:2:name': 'PA9', reading: 'tab' })
    const again: string[] = []
    render(<OwnRules used={['word:QQ']} askAgain={(id) => again.push(id)} />)
    fireEvent.click(screen.getByText('2 rules from earlier sheets, 1 used here'))
    expect(screen.getAllByRole('listitem').map((l) => l.textContent)).toEqual([
      'ZK: no function Take back',
      'QQ: timer or PWM used here Ask again here Take back',
    ])
    fireEvent.click(screen.getByRole('button', { name: 'Ask again here: QQ: timer or PWM' }))
    expect(again).toEqual(['word:QQ'])
    expect(screen.queryByRole('button', { name: 'Ask again here: ZK: no function' })).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Take back: ZK: no function' }))
    expect(useRules.getState().rules).toEqual({ 'word:QQ': 'timer' })
    const bring = (text: string) =>
      fireEvent.change(screen.getByLabelText('A file of rules'), {
        target: {
          files: [Object.assign(new File([text], 'mine.json'), { text: () => Promise.resolve(text) })],
        },
      })
    bring('{"format":"root-board-intake-rules/1","rules":{"leg:7":"PA3"}}')
    expect((await screen.findByRole('alert')).textContent).toBe(
      'mine.json rules.leg:7: is no rule. Nothing was brought.',
    )
    bring(rulesFile({ 'kind:TB': 'timer' }))
    expect(await screen.findByText('TB: timer or PWM')).toBeTruthy()
    expect(useRules.getState().rules).toEqual({ 'word:QQ': 'timer', 'kind:TB': 'timer' })
    // What was answered of this sheet comes before what earlier ones taught.
    const read = (answers: object) => readTable(text, { answers: { 'kind:TB': 'timer', ...answers } }).units
    expect(read({}).find((u) => u.id === 'TB')?.kind).toBe('timer')
    expect(read({ 'kind:TB': 'none' }).some((u) => u.id === 'TB')).toBe(false)
  })
  test('an answer is given, and taken back', () => {
    const given: object[] = []
    const answers = { 'kind:TA': 'timer' }
    render(
      <Questions
        questions={table.questions}
        answers={answers}
        answer={(a) => given.push(a)}
        show={() => undefined}
      />,
    )
    fireEvent.change(screen.getByRole('combobox'), { target: { value: 'timer' } })
    fireEvent.click(screen.getByRole('button', { name: 'So it is' }))
    fireEvent.click(screen.getByRole('button', { name: 'Take the last answer back' }))
    expect(given).toEqual([{ 'kind:TA': 'timer', 'kind:TB': 'timer' }, {}])
  })
  test('without a question that is said', () => {
    render(<Questions questions={[]} answers={{}} answer={() => undefined} show={() => undefined} />)
    expect(screen.getByText('Nothing is left to ask.')).toBeTruthy()
  })

  const draft: PasteDraft = {
    kind: 'chip',
    name: 'Mine',
    sheet: '',
    maker: '',
    price: '1,20',
    style: 'dip',
    legs: '',
    chip: '',
    logic: '3.3 V',
    inputMin: '4 V',
    inputMax: '6 V',
    tableText: text,
    limitsText: '',
    answers: {},
    limitAnswers: {},
    askedAgain: [],
    group: '',
    pitch: '',
    exchange: [],
  }
  test.each<[string, Partial<PasteDraft>, string | undefined]>([
    ['a chip with its name', {}, undefined],
    ['no name', { name: ' ' }, 'Give it a name above.'],
    ['a device with its terminals', { kind: 'device' }, undefined],
    [
      'a regulator of which nothing is known',
      { kind: 'regulator' },
      'Still to be told: which leg is its output.',
    ],
    [
      'a regulator whose legs are no distance apart',
      { kind: 'regulator', pitch: 'wide' },
      'Between its legs: “wide” is not a number in m.',
    ],
    ['a board without its chip', { kind: 'board' }, 'Choose the chip on the board above.'],
    [
      'a board without its voltages',
      { kind: 'board', chip: 'qm32-48', logic: 'x' },
      'Logic: “x” is not a number in V.',
    ],
    [
      'a price that can’t be read is not left out',
      { price: 'cheap' },
      'Price: An amount in euro, like 1.20, or nothing.',
    ],
    ['nor a number of legs', { legs: 'ten' }, 'Legs: How many legs it has; nothing for those of the table.'],
    [
      'a board without its highest input',
      { kind: 'board', chip: 'qm32-48', inputMax: '' },
      'Input to: Its highest input.',
    ],
  ])('%s', (_, change, fault) => {
    const result = resultOf({ ...draft, ...change }, table, undefined, library, {})
    expect(result.faults[0]?.message).toBe(fault)
    if (!fault)
      expect(result.part).toMatchObject({
        id: 'mine',
        price: 1.2,
        ...(change.kind === 'device' ? { kind: 'device' } : { package: { style: 'dip', legs: 4 } }),
      })
  })
  test('nothing pasted is no fault and no part', () => {
    expect(resultOf(draft, undefined, undefined, library, {})).toEqual({
      faults: [],
      questions: [],
      notes: [],
    })
  })
})

describe('a part’s page', () => {
  test.each<[string, unknown, string]>([
    ['supply.recommended', { min: 1.8, max: 5.5, kind: 'recommended' }, 'min 1.8 V, max 5.5 V'],
    ['io.inputHigh', { factor: 0.2, offset: 0.9 }, '0.2 · V_DD + 900 mV'],
    ['io.inputLow', { factor: 0, offset: 0.8 }, '800 mV'],
    ['io.outputLow[0]', { current: 0.02, drop: { max: 0.6, kind: 'guaranteed' } }, '20 mA: max 600 mV'],
    ['pins[0].functions', [{ unit: 'ADC', signal: 'IN3', select: 2 }], 'ADC.IN3@2'],
    ['limits.total.max', 0.2, '200 mA'],
    ['memory.program', 16384, '16,384 bytes'],
    ['clockSources[0].tolerance', 0.02, '2 %'],
    ['temperature.max', 85, '85 °C'],
  ])('%s in words with its unit', (path, value, words) => {
    expect(factText('chip', path, value)).toBe(words)
  })
  test('facts with kind and place; what is assumed says so instead', () => {
    const bare = readPart(
      {
        format: 2,
        kind: 'chip',
        id: 'b',
        name: 'B',
        sheet: 's',
        package: { legs: 2 },
        pins: [
          { id: 'VDD', legs: [1], type: 'supply' },
          { id: 'GND', legs: [2], type: 'ground' },
        ],
      },
      'b',
    )
    render(<Facts part={bare} />)
    expect(screen.getByRole('row', { name: /supply · recommended/ }).textContent).toContain('○ assumed')
    render(<Completeness part={bare} />)
    expect(screen.getByRole('row', { name: /^power/ }).textContent).toMatch(/○ open.*supply range/)
    render(<Facts part={chip} />)
    expect(screen.getAllByRole('row', { name: /supply · recommended/ })[1]!.textContent).toContain('table 4')
  })
  test('only what differs, with units; the same is said to be the same', () => {
    const changed = { ...led, price: 0.5, current: { ...led.current, max: 0.03 } }
    render(<Differences before={led} after={changed} beforeName="was" afterName="is" />)
    expect(screen.getAllByRole('row')).toHaveLength(3)
    expect(screen.getByRole('row', { name: /current · max/ }).textContent).toContain('30 mA')
    render(<Differences before={led} after={{ ...led, id: 'x' }} beforeName="was" afterName="is" />)
    expect(screen.getByText('They say the same.')).toBeTruthy()
  })
  test.each(['td8-28-dip', 'qm32-48', 'mw2-module'])('%s is drawn with every leg', (id) => {
    const part = findPart(library, 'chip', id)!
    render(<PackageDrawing package={part.package} name={part.name} />)
    expect(document.querySelectorAll('.leg')).toHaveLength(part.package.legs)
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain(`${part.package.legs} legs`)
  })
})

describe('a library file', () => {
  test('one part or many; anything else is refused with its place', () => {
    const one = JSON.stringify(led)
    expect(partsIn(one, 'x')).toHaveLength(1)
    expect(partsIn(JSON.stringify({ format: 1, parts: [led, chip] }), 'x')).toHaveLength(2)
    expect(() => partsIn('{', 'x')).toThrow(FaultyFile)
    expect(() => partsIn('{"kind":"lamp"}', 'x')).toThrow(/must be one of/)
  })
})

const Editor = ({ start, seen }: { start: Json; seen: (data: Json, faults: Fault[]) => void }) => {
  const [data, setData] = useState(start)
  const { kind } = data
  let faults: Fault[] = []
  try {
    readPart(data, 'part')
  } catch (error) {
    faults = (error as FaultyFile).faults
  }
  seen(data, faults)
  return (
    <MemoryRouter>
      <SheetForm
        editing={{
          kind: kind as PartKind,
          data,
          faults,
          change: (steps, v) => setData(stated(withValue(data, steps, v) as Json, pathText(steps))),
        }}
      />
    </MemoryRouter>
  )
}

test('the file beside the fields is in the order of the sheet, whatever order it was read in', () => {
  render(
    <FileBeside kind="led" data={{ colour: 'red', price: 1, name: 'Lamp', kind: 'led' }} close={() => 0} />,
  )
  const text = screen.getByLabelText('Its file').querySelector('pre')!.textContent
  expect(Object.keys(JSON.parse(text) as Json)).toEqual(['kind', 'name', 'price', 'colour'])
})

test('which clock source a board runs its chip from is a fact, not a place in a sheet', () => {
  const board = findPart(library, 'board', 'trestle-32')!
  const other = { ...board, clock: { ...board.clock!, source: 'internal' } }
  const { container } = render(
    <Differences before={board} after={other} beforeName="one" afterName="other" />,
  )
  expect(container.textContent).toContain('which of the chip’s clock sources')
  cleanup()
  render(<Facts part={board} />)
  const row = screen.getByRole('row', { name: /which of the chip’s clock sources/ })
  expect(
    within(row)
      .getAllByRole('cell')
      .map((c) => c.textContent),
  ).toEqual(['clock · which of the chip’s clock sources', 'crystal', 'stated', '', ''])
  cleanup()
  render(<Editor start={JSON.parse(JSON.stringify(board)) as Json} seen={() => undefined} />)
  expect(screen.getByLabelText<HTMLInputElement>('which of the chip’s clock sources *').value).toBe('crystal')
})

test('a fault’s place as one reads it', () => {
  expect(pathWords('inputAbsolute.max')).toBe('input, absolute maximum, max')
  expect(pathWords('pins[3].legs[0]')).toBe('legs 4, legs 1')
})

// jsdom scrolls nothing.
Element.prototype.scrollIntoView = () => undefined

describe('the editor', () => {
  let now: { data: Json; faults: Fault[] }
  const open = () =>
    render(
      <Editor
        start={JSON.parse(JSON.stringify(led)) as Json}
        seen={(data, faults) => (now = { data, faults })}
      />,
    )
  const rated = (name: RegExp) => within(screen.getByRole('group', { name }))
  test('a quantity is read as it is written, and a wrong unit is said beside its field', () => {
    open()
    const max = rated(/^current, absolute maximum/).getByLabelText('max (A)')
    fireEvent.change(max, { target: { value: '35m' } })
    expect(valueAt(now.data, ['currentAbsolute', 'max'])).toBe(0.035)
    fireEvent.change(max, { target: { value: '5 V' } })
    expect(now.faults.map((f) => f.path)).toContain('currentAbsolute.max')
    expect(max.getAttribute('aria-invalid')).toBe('true')
  })
  test('two sources for one fact stay side by side, and the other can be chosen', () => {
    open()
    const field = rated(/^current \*/)
    fireEvent.click(field.getByRole('button', { name: 'Another source says …' }))
    fireEvent.change(field.getByLabelText('max (A)'), { target: { value: '15 mA' } })
    expect(now.data.current).toMatchObject({ max: 0.015, others: [{ max: led.current.max }] })
    fireEvent.click(field.getByRole('button', { name: 'Choose this one' }))
    expect(now.data.current).toMatchObject({ max: led.current.max, others: [{ max: 0.015 }] })
    expect(now.faults).toEqual([])
  })
  test('contents of a sheet say where something is wrong or assumed; what is assumed is taken as it is', () => {
    const limits = {
      ...(JSON.parse(JSON.stringify(chip)) as Json),
      assumed: ['limits.total', 'supply.absolute'],
    }
    render(<Editor start={limits} seen={(data, faults) => (now = { data, faults })} />)
    const contents = within(screen.getByRole('navigation', { name: 'Contents of the sheet' }))
    const lines = () => contents.getAllByRole('button').map((b) => b.textContent)
    expect(lines().filter((l) => l.includes('assumed'))).toEqual([
      'What it runs on ○ 1 assumed',
      'Inputs and outputs ○ 1 assumed',
    ])
    const before = valueAt(now.data, ['limits', 'total'])
    fireEvent.click(rated(/^all legs \*/).getByRole('button', { name: 'It is so' }))
    expect([now.data.assumed, valueAt(now.data, ['limits', 'total'])]).toEqual([['supply.absolute'], before])
    fireEvent.change(rated(/^all legs \*/).getByLabelText('max (A)'), { target: { value: '3 V' } })
    expect(lines()).toContain('Inputs and outputs 1 fault')
    fireEvent.click(contents.getByRole('button', { name: 'Clock' }))
    expect(document.activeElement).toBe(screen.getByRole('heading', { name: 'Clock' }))
  })
  test('short entries are rows of a table, with units in its head', () => {
    render(
      <Editor
        start={JSON.parse(JSON.stringify(chip)) as Json}
        seen={(data, faults) => (now = { data, faults })}
      />,
    )
    const table = within(screen.getByRole('table', { name: 'highest clock at a supply' }))
    expect(table.getAllByRole('columnheader').map((h) => h.textContent)).toEqual([
      'supply, V *',
      'frequency, Hz *',
      'place in the sheet',
      'Take it out',
    ])
    fireEvent.change(table.getByLabelText('frequency 2 * (Hz)'), { target: { value: '7.5 MHz' } })
    expect(valueAt(now.data, ['frequencyLimits', 1, 'frequency'])).toBe(7.5e6)
    fireEvent.click(table.getByRole('button', { name: 'Take out 1' }))
    expect(valueAt(now.data, ['frequencyLimits'])).toHaveLength(chip.frequencyLimits.length - 1)
  })
  test('an entry of a list is added with what it must have, and taken out', () => {
    const short = { ...(JSON.parse(JSON.stringify(led)) as Json), forward: led.forward.slice(0, 2) }
    render(<Editor start={short} seen={(data, faults) => (now = { data, faults })} />)
    fireEvent.click(screen.getByRole('button', { name: 'One more' }))
    expect(now.data.forward).toHaveLength(3)
    expect(now.faults.length).toBeGreaterThan(0)
  })
  test('places deep in a file are set, made and taken out', () => {
    expect(withValue({ a: [{ b: 1 }] }, ['a', 0, 'b'], 2)).toEqual({ a: [{ b: 2 }] })
    expect(withValue({}, ['a', 'b'], 1)).toEqual({ a: { b: 1 } })
    expect(withValue({ a: [1, 2, 3] }, ['a', 1], undefined)).toEqual({ a: [1, 3] })
    expect(blank('chip', ['clockSources', 0], {})).toMatchObject({ kind: 'internal', min: '', max: '' })
  })
})
