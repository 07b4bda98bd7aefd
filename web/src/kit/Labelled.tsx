// A field with its name above it, what it serves beside the name, and what is wrong with it below.

import { styled } from '@mui/material'
import { type ReactNode, useId } from 'react'

const Column = styled('div')({ display: 'flex', flexDirection: 'column', gap: 2, minWidth: 0 })

interface Props {
  name: string
  /** What it is for, in a few words. */
  serves?: string
  fault?: string
  children: (field: { id: string; wrong: boolean; describedBy: string | undefined }) => ReactNode
}

export const Labelled = ({ name, serves, fault, children }: Props) => {
  const id = useId()
  const why = `${id}-why`
  return (
    <Column>
      <label htmlFor={id}>
        {name}
        {serves && <span className="faint"> {serves}</span>}
      </label>
      {children({ id, wrong: fault !== undefined, describedBy: fault ? why : undefined })}
      {fault && (
        <span id={why} className="stops" role="alert">
          {fault}
        </span>
      )}
    </Column>
  )
}
