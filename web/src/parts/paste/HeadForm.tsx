// What can't be read from a table: what the part is called, and for a board its chip and voltages.

import { styled } from '@mui/material'
import { type Library, partsOfKind } from '@root-board/core/parts'
import { useId } from 'react'
import { type PasteDraft, usePaste } from './draft'
import { headFaults, headNames } from './head'
import { Choice, TextInput } from '../../kit/inputs'
import { Captioned } from '../../kit/layout'

const Field = ({
  name,
  label = headNames[name] ?? name,
  fault,
  width = 150,
  placeholder,
  required,
}: {
  name: keyof PasteDraft
  label?: string
  fault?: string
  width?: number
  placeholder?: string
  required?: boolean
}) => {
  const id = useId()
  const value = usePaste((s) => s[name]) as string
  const set = usePaste((s) => s.set)
  return (
    <Captioned>
      <label htmlFor={id}>{label}</label>
      <TextInput
        id={id}
        width={width}
        value={value}
        placeholder={placeholder}
        required={required}
        wrong={fault !== undefined}
        describedBy={fault && `${id}-why`}
        maxLength={200}
        onChange={(typed) => set({ [name]: typed })}
      />
      {fault && (
        <span id={`${id}-why`} className="stops" role="alert" style={{ maxWidth: 190, fontSize: 12.5 }}>
          {fault}
        </span>
      )}
    </Captioned>
  )
}

export const HeadForm = ({ library }: { library: Library | undefined }) => {
  const draft = usePaste()
  const { kind, style, chip, set } = draft
  const faults = headFaults(draft)
  const ids = [useId(), useId(), useId()]
  const chips = library ? partsOfKind(library, 'chip') : []
  return (
    <HeadFields>
      <Captioned>
        <label htmlFor={ids[0]}>What is it?</label>
        <Choice<PasteDraft['kind']>
          id={ids[0]}
          value={kind}
          options={[
            { value: 'chip', label: 'a chip or module' },
            { value: 'board', label: 'a board with headers' },
            { value: 'regulator', label: 'a regulator' },
            { value: 'device', label: 'a device: sensor, display …' },
          ]}
          onChange={(kind) => set({ kind, style: '', answers: {}, limitAnswers: {} })}
        />
      </Captioned>
      <Field name="name" label="Its name" required />
      <Field name="sheet" label="Its data sheet" width={190} placeholder="title, issue" />
      <Field name="price" label="Price, €" fault={faults.price} width={70} />
      {kind === 'device' && <Field name="group" width={130} placeholder="sensor, display …" />}
      {(kind === 'chip' || kind === 'regulator') && (
        <>
          <Captioned>
            <label htmlFor={ids[1]}>Package</label>
            <Choice
              id={ids[1]}
              value={style}
              options={[
                { value: '', label: 'by its number of legs' },
                ...(kind === 'regulator' ? [{ value: 'upright', label: 'upright, one row' }] : []),
                { value: 'dip', label: 'through holes, two rows (2.54 mm)' },
                { value: 'two-sided', label: 'flat, two sides' },
                { value: 'four-sided', label: 'flat, four sides' },
                { value: 'module', label: 'module' },
              ]}
              onChange={(style) => set({ style })}
            />
          </Captioned>
          {kind === 'chip' ? (
            <Field name="legs" fault={faults.legs} width={60} placeholder="all" />
          ) : (
            <Field name="pitch" fault={faults.pitch} width={110} placeholder="by its style" />
          )}
        </>
      )}
      {kind === 'board' && (
        <>
          <Captioned>
            <label htmlFor={ids[2]}>Chip on it</label>
            <Choice
              id={ids[2]}
              value={chip}
              options={[
                { value: '', label: 'choose …' },
                ...chips.map((c) => ({ value: c.id, label: c.name })),
              ]}
              onChange={(chip) => set({ chip, answers: {} })}
            />
          </Captioned>
          <Field name="logic" fault={faults.logic} width={70} />
          <Field name="inputMin" fault={faults.inputMin} width={70} />
          <Field name="inputMax" fault={faults.inputMax} width={70} />
        </>
      )}
    </HeadFields>
  )
}

const HeadFields = styled('div')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: '6px 14px',
})
