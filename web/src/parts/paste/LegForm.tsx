// One leg of what was understood, corrected by hand. What is written here is kept as an answer, as those to questions are,
// and holds when the text is read again.

import { Button, styled } from '@mui/material'
import { type Answers, type FoundLeg, isLegName, legsIn, notFunctions } from '@root-board/core/intake'
import { useEffect, useRef, useState } from 'react'
import { Choice, TextInput } from '../../kit/inputs'
import { Cell, Row } from '../../kit/Table'
import { typeWords } from './type-words'

interface Props {
  leg: FoundLeg
  answers: Answers
  save: (answers: Answers) => void
  close: () => void
}

const written = (leg: FoundLeg) => leg.functions.map((f) => f.text).join(', ')
const keyOf = (leg: FoundLeg, field: string) => `set:${leg.key}:${field}`
/** How a leg is spoken of: by its number, or by its name where it has none. */
export const spoken = (leg: FoundLeg): string => (leg.legs.length > 0 ? `leg ${leg.legs.join(', ')}` : leg.id)
/** Fields of a leg that can be written anew, as its corrections call them. */
export const correctable = ['legs', 'name', 'type', 'functions'] as const

/** What is wrong with what was typed, in words. */
const faultIn = (legs: string, name: string, functions: string): string | undefined => {
  if (legs !== '' && !legsIn(legs)) return 'A leg’s number is a number; several are parted by commas.'
  if (!isLegName(name)) return 'A name is letters, digits and . _ : + - alone.'
  const odd = notFunctions(functions)
  return odd.length > 0 ? `No function’s name: ${odd.join(', ')}.` : undefined
}

export const LegForm = ({ leg, answers, save, close }: Props) => {
  const form = useRef<HTMLFormElement>(null)
  // All of it is seen, its buttons too. A page without a layout has nothing to move.
  useEffect(() => {
    // What it answers is nothing to be called when the form goes.
    void form.current?.scrollIntoView?.({ block: 'nearest' })
  }, [])
  const [legs, setLegs] = useState(leg.legs.join(', '))
  const [name, setName] = useState(leg.id)
  const [type, setType] = useState<FoundLeg['type']>(leg.type)
  const [functions, setFunctions] = useState(written(leg))
  const fault = faultIn(legs.trim(), name.trim(), functions)
  const changes: Answers = {
    ...(legs.trim() === leg.legs.join(', ') ? {} : { [keyOf(leg, 'legs')]: legs.trim() }),
    ...(name.trim().toUpperCase() === leg.id ? {} : { [keyOf(leg, 'name')]: name.trim() }),
    ...(type === leg.type ? {} : { [keyOf(leg, 'type')]: type }),
    ...(functions.trim() === written(leg) ? {} : { [keyOf(leg, 'functions')]: functions.trim() }),
  }
  return (
    <Row>
      <Cell colSpan={5}>
        <Form
          ref={form}
          aria-label={`Correct ${spoken(leg)}`}
          onSubmit={(e) => {
            e.preventDefault()
            if (fault) return
            save({ ...answers, ...changes })
            close()
          }}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Escape') close()
          }}
        >
          <TextInput label="Legs" value={legs} onChange={setLegs} mono width={64} />
          <TextInput label="Name" value={name} onChange={setName} autoFocus mono width={110} />
          <Choice
            label="Type"
            value={type}
            options={Object.entries(typeWords).map(([value, label]) => ({
              value: value as FoundLeg['type'],
              label,
            }))}
            onChange={setType}
          />
          <TextInput
            label="Functions"
            placeholder="its functions, parted by commas"
            value={functions}
            onChange={setFunctions}
            mono
            width={230}
          />
          <Button type="submit" variant="contained" disabled={fault !== undefined}>
            So it is
          </Button>
          <Button onClick={close}>Leave it</Button>
          {fault && (
            <span className="stops" role="alert">
              {fault}
            </span>
          )}
        </Form>
      </Cell>
    </Row>
  )
}

const Form = styled('form')({ display: 'flex', flexWrap: 'wrap', gap: 8, alignItems: 'center' })
