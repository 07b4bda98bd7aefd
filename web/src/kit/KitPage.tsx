// Every component of the kit in its states, on one page: to look at after a change of the theme, and for the machine that looks for
// what can’t be read, reached or told apart. No page of the program leads here.

import type { StepCheck } from '@root-board/core/blocks'
import { cautionWords } from '@root-board/core/blocks'
import { type Finding, fromRule } from '@root-board/core/findings'
import { sum } from '@root-board/core/sums'
import { Alert, Button, Tab, Tabs, TextField } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { Caution } from './Caution'
import { Expectation } from './Expectation'
import { FileButton } from './FileButton'
import { Flat } from './Flat'
import { Fold } from './Fold'
import { Choice, TextInput, Tick } from './inputs'
import { Labelled } from './Labelled'
import { Mark, Marks, severityWords } from './Mark'
import { useMode } from './mode'
import { Num, Quantity } from './Num'
import { QuantityField } from './QuantityField'
import { Body, Cell, Columns, hidden, right, Row, Table } from './Table'

const severities = Object.keys(severityWords) as Finding['severity'][]

/** 12 V across 4.7 kΩ, ± 5 % each: 2.31 to 2.82 mA. */
const current = sum(
  { label: 'Current of the pull-up', symbol: 'I', unit: 'A' },
  {
    V: { ...fromRule('V', 'supply', 12, 'V', 'the kit'), value: { min: 11.4, typ: 12, max: 12.6 } },
    R: { ...fromRule('R', 'pull-up', 4700, 'Ω', 'the kit'), value: { min: 4465, typ: 4700, max: 4935 } },
  },
  (i) => i.V.over(i.R),
)

const checks: [string, StepCheck['expect']][] = [
  ['between two', { min: 4.8, max: 5.2, unit: 'V' }],
  ['at least', { min: 1e6, unit: 'Ω' }],
  ['at most', { max: 0.05, unit: 'A' }],
]

const Section = ({ title, children }: { title: string; children: ReactNode }) => {
  const id = title.toLowerCase().replace(/\W+/g, '-')
  return (
    <section aria-labelledby={id} style={{ minWidth: 0 }}>
      <h2 id={id} style={{ marginBottom: 10 }}>
        {title}
      </h2>
      {children}
    </section>
  )
}

const KitPage = () => {
  const { mode, toggle } = useMode()
  const [text, setText] = useState('Lamp')
  const [chosen, setChosen] = useState('lean')
  const [ticked, setTicked] = useState(true)
  const [amount, setAmount] = useState<number | undefined>(4700)
  const [tab, setTab] = useState(0)
  const [open, setOpen] = useState(true)
  const nothing = () => undefined
  return (
    <main style={{ padding: 24, maxWidth: 940, margin: '0 auto', display: 'grid', gap: 22 }}>
      <h1>The kit</h1>
      <p className="faint">
        Each component as it can be met.{' '}
        <Button onClick={toggle}>{mode === 'dark' ? 'Daylight' : 'Lamp light'}</Button>
      </p>

      <Section title="Buttons">
        <Button>Plain</Button>{' '}
        <Button variant="contained" color="primary">
          The one to press
        </Button>{' '}
        <Button disabled>Not now</Button>{' '}
        <Button variant="contained" disabled>
          Not now either
        </Button>{' '}
        <Flat onClick={nothing}>flat, in a line of text</Flat>{' '}
        <FileButton accept=".json" label="A file for nothing" onFile={nothing}>
          choose a file
        </FileButton>
      </Section>

      <Section title="Fields">
        <TextField
          label="With its label in the frame"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />{' '}
        <TextInput label="In a line" value={text} onChange={setText} />{' '}
        <TextInput label="Wrong" value="12 parsecs" wrong describedBy="why" onChange={nothing} />{' '}
        <span id="why" className="stops">
          no unit of current
        </span>{' '}
        <TextInput label="Disabled" value={text} onChange={nothing} disabled />{' '}
        <TextInput label="Empty" value="" placeholder="none" onChange={nothing} />
        <p>
          <TextInput
            label="Several lines"
            rows={3}
            width="100%"
            value={'1 VDD 3.3 V\n2 GND'}
            mono
            onChange={nothing}
          />
        </p>
        <p>
          <Choice
            label="Stance"
            value={chosen}
            onChange={setChosen}
            options={[
              { value: 'lean', label: 'lean' },
              { value: 'book', label: 'by the book' },
            ]}
          />{' '}
          <Tick checked={ticked} onChange={setTicked}>
            Ticked with words
          </Tick>{' '}
          <Tick checked={false} onChange={nothing} label="Not ticked, without words" />
        </p>
        <QuantityField
          label="Resistance"
          unit="Ω"
          value={amount}
          min={1}
          onChange={(v) => setAmount(v ?? undefined)}
        />
        <QuantityField
          label="Not said"
          unit="A"
          value={undefined}
          optional
          placeholder="no limit"
          onChange={nothing}
        />
        <Labelled
          name="Supply"
          serves="what it may be fed with"
          fault="400 V: more than 60 V is not for this board."
        >
          {(field) => (
            <TextInput
              id={field.id}
              value="400 V"
              wrong={field.wrong}
              describedBy={field.describedBy}
              onChange={nothing}
            />
          )}
        </Labelled>
      </Section>

      <Section title="Numbers">
        <p>
          One that opens: <Num worked={current} />, at most <Num worked={current} show="max" />, over its
          range <Num worked={current} show="range" />. One that is only said:{' '}
          <Quantity value={0.0047} unit="F" />.
        </p>
        <ul>
          {checks.map(([what, expect]) => (
            <li key={what}>
              {what}: <Expectation check={{ where: '', powered: true, expect, otherwise: '' }} />
            </li>
          ))}
        </ul>
      </Section>

      <Section title="Marks and cautions">
        <p>
          {severities.map((s) => (
            <span key={s} style={{ marginRight: 16 }}>
              <Mark severity={s} /> {severityWords[s]}
            </span>
          ))}
          <Marks findings={severities.map((severity) => ({ severity }) as Finding)} />
        </p>
        {(Object.keys(cautionWords) as (keyof typeof cautionWords)[]).map((name) => (
          <Caution key={name} name={name} />
        ))}
        <p>
          <span className="stops">stops</span>, <span className="risks">risks</span>,{' '}
          <span className="faint">faint</span>, <kbd>K</kbd>, <span className="mono">mono 0O 1l</span>
        </p>
        <Alert severity="warning">Changed elsewhere: choose which to keep.</Alert>
      </Section>

      <Section title="Folding, tabs, a table">
        <Fold title="What is folded away" open={open} onOpen={setOpen}>
          is not there.
        </Fold>
        <Tabs value={tab} onChange={(_, to: number) => setTab(to)} aria-label="Two pages">
          <Tab label="One" />
          <Tab label="The other" />
        </Tabs>
        <Table>
          <Columns of={['Who', right('At work'), hidden('Remove')]} />
          <Body>
            {['Lamp', 'Relay'].map((name) => (
              <Row key={name}>
                <Cell>{name}</Cell>
                <Cell align="right" className="mono">
                  <Num worked={current} />
                </Cell>
                <Cell align="right">
                  <Button aria-label={`Remove ${name}`}>×</Button>
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
        <p className="empty">Nothing here yet: what to do about it stands in this place.</p>
      </Section>
    </main>
  )
}

export default KitPage
