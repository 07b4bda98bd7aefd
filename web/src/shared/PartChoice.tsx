// Choosing a part among some of the library; one that is chosen and no longer there is shown as that.

import { Choice } from '../kit/inputs'

interface Named {
  id: string
  name: string
}

/** `none`: what it says where none is chosen, and that none can be; `ask`: that one is to be chosen, gone once it is. */
export const PartChoice = <P extends Named>({
  id,
  value,
  parts,
  none,
  ask,
  onChosen,
}: {
  id: string
  value: string | undefined
  parts: readonly P[]
  none?: string
  ask?: string
  onChosen: (part: P | undefined) => void
}) => {
  const gone = value !== undefined && !parts.some((p) => p.id === value)
  const empty = none ?? (value === undefined ? ask : undefined)
  return (
    <Choice
      id={id}
      value={value ?? ''}
      options={[
        ...(empty === undefined ? [] : [{ value: '', label: empty }]),
        ...(gone ? [{ value, label: `${value}, not in the library` }] : []),
        ...parts.map((p) => ({ value: p.id, label: p.name })),
      ]}
      onChange={(chosen) => {
        const part = parts.find((p) => p.id === chosen)
        // What is gone can’t be chosen again.
        if (part || chosen === '') onChosen(part)
      }}
    />
  )
}
