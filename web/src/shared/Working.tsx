// The derivation of one number: formula, values put in, where each came from. Worked inputs open in place.

import { originText, rangeText, substituted, type Worked, workingText } from '@root-board/core/findings'
import { Button } from '@mui/material'
import { useState } from 'react'
import './working.css'
import { Columns } from './Columns'

export const Working = ({ worked }: { worked: Worked }) => {
  const [path, setPath] = useState<Worked[]>([worked])
  const [copied, setCopied] = useState(false)
  const shown = path[path.length - 1]!
  const values = substituted(shown)
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
      {shown.inputs.length > 0 && (
        <table className="ruled">
          <Columns of={['Symbol', 'Value', 'What, and from where']} />
          <tbody>
            {shown.inputs.map((input, i) => (
              <tr key={i}>
                <td className="mono">{input.symbol}</td>
                <td className="mono">{rangeText(input.value, input.unit)}</td>
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
      {shown.note && <p>{shown.note}</p>}
      <Button
        onClick={() => {
          void navigator.clipboard.writeText(workingText(shown)).then(() => setCopied(true))
        }}
      >
        {copied ? 'Copied' : 'Copy the working'}
      </Button>
    </div>
  )
}

const OpenWorked = ({ of, open }: { of: Worked; open: (w: Worked) => void }) => (
  <button type="button" className="plain-button" onClick={() => open(of)}>
    <u>worked out: show how</u>
  </button>
)
