// The derivation of one number: formula, values put in, where each came from. Worked inputs open in place.

import {
  inputText,
  linesOf,
  originText,
  rangeText,
  substituted,
  unprovenText,
  type Worked,
  workingText,
} from '@root-board/core/findings'
import { formatQuantity } from '@root-board/core/quantity'
import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useState } from 'react'
import './working.css'
import { Columns } from './Columns'

type Corner = 'min' | 'typ' | 'max'

/** `corner`: of the number that was pressed. */
export const Working = ({ worked, corner: pressed = 'typ' }: { worked: Worked; corner?: Corner }) => {
  const [corner, setCorner] = useState(pressed)
  const [path, setPath] = useState<Worked[]>([worked])
  const [copied, setCopied] = useState<'working' | 'line'>()
  const shown = path[path.length - 1]!
  const values = substituted(shown, corner)
  const lines = linesOf(shown)
  const line = lines.find((l) => l.corner === corner) ?? lines[0]
  const copy = (what: 'working' | 'line', text: string) =>
    void navigator.clipboard.writeText(text).then(() => setCopied(what))
  return (
    <div className="working">
      {path.length > 1 && (
        <nav aria-label="Way here">
          {path.slice(0, -1).map((w, i) => (
            <span key={i}>
              <button type="button" className="plain-button" onClick={() => setPath(path.slice(0, i + 1))}>
                <u>{w.label}</u>
              </button>
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
            {formatQuantity(shown.value[line.corner], shown.unit, 4)}
            {line.where ? ` at the ${line.where}` : ' at the usual values'}
          </p>
        </div>
      )}
      {shown.inputs.length > 0 && (
        <table className="ruled">
          <Columns of={['Symbol', 'Value', 'What, and from where']} />
          <tbody>
            {shown.inputs.map((input, i) => (
              <tr key={i}>
                <td className="mono">{input.symbol}</td>
                <td className="mono">{inputText(input)}</td>
                <td>
                  {input.label}
                  <br />
                  {input.origin.kind === 'worked' ? (
                    <OpenWorked of={input.origin.of} open={(w) => setPath([...path, w])} />
                  ) : (
                    <span className="faint">{originText(input.origin)}</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
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
    </div>
  )
}

const OpenWorked = ({ of, open }: { of: Worked; open: (w: Worked) => void }) => (
  <button type="button" className="plain-button" onClick={() => open(of)}>
    <u>worked out: show how</u>
  </button>
)
