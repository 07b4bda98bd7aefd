// The name of something, changed in place: what is typed counts when the field is left or with Enter, and not with Esc.

import { useState } from 'react'
import { flushSync } from 'react-dom'
import { TextInput } from './inputs'

interface Props {
  id?: string
  label: string
  value: string
  maxLength: number
  className?: string
  autoFocus?: boolean
  /** Asked with another name only, never with an empty one. */
  onRename: (to: string) => void
  onLeave?: () => void
}

export const NameInput = ({ value, onRename, onLeave, ...field }: Props) => {
  const [typed, setTyped] = useState<string>()
  return (
    <TextInput
      {...field}
      value={typed ?? value}
      onChange={setTyped}
      onBlur={() => {
        const to = typed?.trim()
        setTyped(undefined)
        if (to && to !== value) onRename(to)
        onLeave?.()
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== 'Escape') return
        // Before the field is left, so that leaving it finds nothing to take.
        if (e.key === 'Escape') flushSync(() => setTyped(undefined))
        ;(e.target as HTMLElement).blur()
      }}
    />
  )
}
