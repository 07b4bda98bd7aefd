// One leg of what was understood, corrected by hand. What is written here is kept as an answer, as those to questions are,
// and holds when the text is read again.

import { Button, styled } from '@mui/material'
import type { Answers, FoundLeg } from '@root-board/core/intake'
import { useState } from 'react'
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
const keyOf = (leg: FoundLeg, field: string) => `set:${leg.legs.join(',')}:${field}`

export const LegForm = ({ leg, answers, save, close }: Props) => {
  const [name, setName] = useState(leg.id)
  const [type, setType] = useState<FoundLeg['type']>(leg.type)
  const [functions, setFunctions] = useState(written(leg))
  const fault = /^[A-Z0-9+~/!][A-Z0-9_.:+#-]*$/i.test(name.trim())
    ? undefined
    : 'A name is letters, digits and . _ : + - alone.'
  const changes: Answers = {
    ...(name.trim().toUpperCase() === leg.id ? {} : { [keyOf(leg, 'name')]: name.trim() }),
    ...(type === leg.type ? {} : { [keyOf(leg, 'type')]: type }),
    ...(functions.trim() === written(leg) ? {} : { [keyOf(leg, 'functions')]: functions.trim() }),
  }
  return (
    <Row>
      <Cell className="mono">{leg.legs.join(', ')}</Cell>
      <Cell colSpan={4}>
        <Form
          aria-label={`Correct leg ${leg.legs.join(', ')}`}
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
          <TextInput label="Name" value={name} onChange={setName} autoFocus mono width={130} />
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
            width={260}
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
