// A byte on its legs: the pattern in three bases, each of which can be typed, and what to write to the port.

import {
  type BytePlan,
  type PatternBase,
  patternBases,
  portValue,
  readPattern,
  writePattern,
} from '@root-board/core/legs'
import { useId, useState } from 'react'
import { useStage } from '../../../shared/analysis'
import { Body, Cell, Row, Table } from '../../../kit/Table'
import { Flat } from '../../../kit/Flat'
import { TextInput } from '../../../kit/inputs'

export const Bytes = () => {
  const { bytes } = useStage().analysis.pins
  if (bytes.length === 0) return null
  return (
    <section aria-labelledby="bytes">
      <h2 id="bytes">Lines used as one number</h2>
      {bytes.map((b) => (
        <Pattern key={b.id} byte={b} />
      ))}
    </section>
  )
}

const hex = (value: number) => `0x${value.toString(16).toUpperCase()}`

const Pattern = ({ byte }: { byte: BytePlan }) => {
  const bits = byte.wires.length
  const [value, setValue] = useState(5)
  const [typed, setTyped] = useState<{ base: PatternBase; text: string }>()
  const id = useId()
  const wrong = typed && readPattern(typed.text, bits, typed.base) === undefined
  const written = portValue(byte, value)
  const type = (base: PatternBase, text: string) => {
    setTyped({ base, text })
    const read = readPattern(text, bits, base)
    if (read !== undefined) setValue(read)
  }
  return (
    <div className="byte" role="group" aria-label={`Pattern of ${byte.name}`}>
      <b>{byte.name}</b>
      {patternBases.map((base) => (
        <label key={base}>
          {base}{' '}
          <TextInput
            mono
            size={base === 'binary' ? bits + 2 : 6}
            value={typed?.base === base ? typed.text : writePattern(value, bits, base)}
            wrong={wrong && typed.base === base}
            describedBy={wrong && typed.base === base ? id : undefined}
            onChange={(text) => type(base, text)}
            onBlur={() => setTyped(undefined)}
          />
        </label>
      ))}
      {wrong && (
        <span id={id} className="stops">
          no {typed.base} number of {bits} bits
        </span>
      )}
      <Table className="bits">
        <Body>
          <Row>
            <Cell component="th" scope="row">
              Bit
            </Cell>
            {[...byte.wires].reverse().map((w, i) => (
              <Cell key={w.signal.id} className="mono">
                {bits - 1 - i}
              </Cell>
            ))}
          </Row>
          <Row>
            <Cell component="th" scope="row">
              Leg
            </Cell>
            {[...byte.wires].reverse().map((w) => (
              <Cell key={w.signal.id} className="mono">
                {w.pin.labels?.[0] ?? w.pin.id}
              </Cell>
            ))}
          </Row>
          <Row>
            <Cell component="th" scope="row">
              Level
            </Cell>
            {[...byte.wires].reverse().map((w, i) => {
              const up = Math.floor(value / 2 ** (bits - 1 - i)) % 2 === 1
              return (
                <Cell key={w.signal.id}>
                  <Flat
                    className="bit"
                    aria-pressed={up}
                    aria-label={`Bit ${bits - 1 - i}`}
                    onClick={() => setValue(value + (up ? -1 : 1) * 2 ** (bits - 1 - i))}
                  >
                    {up ? 'high' : 'low'}
                  </Flat>
                </Cell>
              )
            })}
          </Row>
        </Body>
      </Table>
      <p className="faint">
        {written
          ? `In order on port ${byte.port!.name}: write ${hex(written.value)} under the mask ${hex(written.mask)}, all at once.`
          : 'Not in order on one port: each bit is written by itself.'}
      </p>
    </div>
  )
}
