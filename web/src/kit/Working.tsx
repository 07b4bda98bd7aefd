// The derivation of one number: formula, values put in, where each came from. Worked inputs open in place.

import {
  inputText,
  linesOf,
  originText,
  rangeText,
  substituted,
  unprovenText,
  valueText,
  type Shown,
  type Worked,
  workingText,
} from '@root-board/core/findings'
import { Button, ToggleButton, ToggleButtonGroup, styled } from '@mui/material'
import { useLayoutEffect, useState } from 'react'
import { Body, Cell, Columns, Row, Table } from './Table'
import { useWorking } from './use-working'
import { Flat } from './Flat'

type Corner = 'min' | 'typ' | 'max'

interface Props<Of extends Shown> {
  worked: Of
  /** Of the number that was pressed. */
  corner?: Corner
  /** What is shown has become larger or smaller. */
  resized?: () => void
}

const Working = ({ worked: pressed, corner, resized }: Props<Shown>) => {
  const { worked, failed } = useWorking(pressed)
  if (worked) return <WrittenOut worked={worked} corner={corner} resized={resized} />
  return (
    <Sheet>
      <h3>{pressed.label}</h3>
      <p className="mono result">
        <b>
          {pressed.symbol} = {rangeText(pressed.value, pressed.unit)}
        </b>
      </p>
      {failed ? (
        <p className="stops" role="alert">
          How it was worked out could not be fetched ({failed}). Close this and press the number again.
        </p>
      ) : (
        <p className="faint">Writing out how …</p>
      )}
    </Sheet>
  )
}

const WrittenOut = ({ worked, corner: pressed = 'typ', resized }: Props<Worked>) => {
  const [corner, setCorner] = useState(pressed)
  const [way, setWay] = useState<Worked[]>([])
  const path = [worked, ...way]
  useLayoutEffect(() => resized?.(), [resized, worked, way, corner])
  const [copied, setCopied] = useState<'working' | 'line'>()
  const shown = path[path.length - 1]!
  const values = substituted(shown, corner)
  const lines = linesOf(shown)
  const line = lines.find((l) => l.corner === corner) ?? lines[0]
  const copy = (what: 'working' | 'line', text: string) =>
    void navigator.clipboard.writeText(text).then(() => setCopied(what))
  return (
    <Sheet>
      {path.length > 1 && (
        <nav aria-label="Way here">
          {path.slice(0, -1).map((w, i) => (
            <span key={i}>
              <Flat onClick={() => setWay(way.slice(0, i))}>
                <u>{w.label}</u>
              </Flat>
              {' › '}
            </span>
          ))}
        </nav>
      )}
      <h3>{shown.label}</h3>
      <p className="mono result">
        {shown.symbol} = {shown.formula}
        {values !== shown.formula && (
          <>
            <br />
            <span className="faint">
              {shown.symbol} = {values}
            </span>
          </>
        )}
        <br />
        <b>
          {shown.symbol} = {rangeText(shown.value, shown.unit)}
        </b>
      </p>
      {lines.length > 1 && line && (
        <div className="corner">
          <ToggleButtonGroup
            size="small"
            exclusive
            value={line.corner}
            aria-label="Which of the three values"
            onChange={(_, chosen: Corner | null) => chosen && setCorner(chosen)}
          >
            {lines.map((l) => (
              <ToggleButton key={l.corner} value={l.corner}>
                {l.word}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <p>
            {valueText(shown.value[line.corner], shown.unit)}
            {shown.unit === 's' && shown.value[line.corner] >= 3600
              ? ` (${Math.round(shown.value[line.corner])} s)`
              : ''}
            {line.where ? ` at ${line.where}` : ' at the usual values'}
          </p>
        </div>
      )}
      {shown.inputs.length > 0 && (
        <Table>
          <Columns of={['Symbol', 'Value', 'What, and from where']} />
          <Body>
            {shown.inputs.map((input, i) => (
              <Row key={i}>
                <Cell className="mono">{input.symbol}</Cell>
                <Cell className="mono">{inputText(input)}</Cell>
                <Cell>
                  {input.label}
                  <br />
                  {input.origin.kind === 'worked' ? (
                    <OpenWorked of={input.origin.of} open={(w) => setWay([...way, w])} />
                  ) : (
                    <span className="faint">{originText(input.origin)}</span>
                  )}
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
      )}
      {shown.unproven && <p className="risks">{unprovenText}</p>}
      {shown.note && <p>{shown.note}</p>}
      <Button onClick={() => copy('working', workingText(shown))}>
        {copied === 'working' ? 'Copied' : 'Copy the working'}
      </Button>{' '}
      {line && (
        <Button title={line.line} onClick={() => copy('line', line.line)}>
          {copied === 'line' ? 'Copied' : 'Copy the line for a calculator'}
        </Button>
      )}
    </Sheet>
  )
}

const OpenWorked = ({ of, open }: { of: Worked; open: (w: Worked) => void }) => (
  <Flat onClick={() => open(of)}>
    <u>worked out: show how</u>
  </Flat>
)

export default Working

const Sheet = styled('div')({
  width: 'min(560px, 92vw)',
  padding: '12px 16px 14px',
  '& .result': { margin: '6px 0 10px', overflowWrap: 'anywhere' },
  '& p': { margin: '8px 0' },
  '& table td': { fontSize: 13 },
  '& .corner': { display: 'flex', alignItems: 'center', gap: 10, fontSize: 13 },
  '& .corner .MuiToggleButton-root': { padding: '1px 9px', textTransform: 'none', font: 'inherit' },
  '& table': { marginBottom: 10 },
})
