// A field that reads quantities as builders type them (4k7, 300 mA) and says what it understood.

import { styled } from '@mui/material'
import {
  formatQuantity,
  parseQuantity,
  parseTime,
  QuantityError,
  timeWords,
  type Unit,
} from '@root-board/core/quantity'
import { useId, useState } from 'react'
import { TextInput } from './inputs'

const wordsOf = (value: number, unit: Unit | 'time') =>
  unit === 'time' ? timeWords(value) : formatQuantity(value, unit)
const read = (text: string, unit: Unit | 'time') =>
  unit === 'time' ? parseTime(text) : parseQuantity(text, unit)

interface Props {
  label: string
  /** `time`: seconds, written as 10 min or 1 h 30 min. */
  unit: Unit | 'time'
  value: number | undefined
  /** `null` when the field was emptied, where that is allowed. */
  onChange: (value: number | null) => void
  optional?: boolean
  placeholder?: string
  min?: number
  max?: number
  width?: number
  hideLabel?: boolean
}

export const QuantityField = ({
  label,
  unit,
  value,
  onChange,
  optional,
  placeholder,
  min,
  max,
  width = 110,
  hideLabel,
}: Props) => {
  const shown = value === undefined ? '' : wordsOf(value, unit)
  const [typed, setTyped] = useState<string>()
  const [fault, setFault] = useState<string>()
  const id = useId()
  const commit = () => {
    if (typed === undefined) return
    const text = typed.trim()
    if (text === '') {
      setTyped(undefined)
      setFault(undefined)
      if (optional) onChange(null)
      return
    }
    try {
      const given = read(text.replace('€', '').replace('−', '-').trim(), unit)
      if (min !== undefined && given < min) throw new QuantityError(`At least ${wordsOf(min, unit)}`)
      if (max !== undefined && given > max) throw new QuantityError(`At most ${wordsOf(max, unit)}`)
      setFault(undefined)
      setTyped(undefined)
      if (given !== value) onChange(given)
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error
      setFault(error.message)
    }
  }
  return (
    <Fields className="quantity-field">
      <label htmlFor={id} className={hideLabel ? 'visually-hidden' : undefined}>
        {label}
      </label>
      <TextInput
        id={id}
        mono
        width={width}
        value={typed ?? shown}
        placeholder={placeholder}
        wrong={fault !== undefined}
        describedBy={fault ? `${id}-fault` : undefined}
        onChange={setTyped}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit()
          if (e.key === 'Escape') {
            setTyped(undefined)
            setFault(undefined)
          }
        }}
      />
      {fault && (
        <span id={`${id}-fault`} className="stops" role="alert">
          {fault}
        </span>
      )}
    </Fields>
  )
}

const Fields = styled('span')({
  display: 'inline-flex',
  flexWrap: 'wrap',
  gap: '2px 6px',
  alignItems: 'center',
})
