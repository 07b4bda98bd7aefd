// A button that asks for a file. The same file can be chosen again.

import { Button } from '@mui/material'
import { type ReactNode, useRef } from 'react'

interface Props {
  children: ReactNode
  /** Of the machine’s own field, for those who hear the page. */
  label: string
  /** Endings or kinds, as a browser takes them; absent: any. */
  accept?: string
  onFile: (file: File) => void
}

export const FileButton = ({ children, label, accept, onFile }: Props) => {
  const picker = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button onClick={() => picker.current?.click()}>{children}</Button>
      <input
        ref={picker}
        type="file"
        accept={accept}
        className="visually-hidden"
        aria-label={label}
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) onFile(file)
          e.target.value = ''
        }}
      />
    </>
  )
}
