// Fields in a line of text or a table: a text, a choice, a tick. Dense, framed by a thin line; MUI’s underneath.

import { Checkbox, FormControlLabel, InputBase, NativeSelect, styled } from '@mui/material'
import type { InputBaseProps } from '@mui/material'
import type { CSSProperties, ReactNode, Ref } from 'react'

/** In a line of text, so no block of its own. */
const InLine = ({ slotProps, ...props }: InputBaseProps) => (
  <InputBase {...props} slotProps={{ ...slotProps, root: { as: 'span' } as object }} />
)

const Frame = styled(InLine)({
  font: 'inherit',
  color: 'inherit',
  background: 'var(--sheet)',
  border: '1px solid var(--line)',
  borderRadius: 3,
  minHeight: 28,
  maxWidth: '100%',
  '&.Mui-error': { borderColor: 'var(--clay)' },
  '&.Mui-focused': { outline: '2px solid var(--slate)', outlineOffset: 2 },
  '&.mono': { fontFamily: 'var(--mono)' },
  '& .MuiInputBase-input': {
    padding: '3px 6px',
    height: 'auto',
    minHeight: 26,
    boxSizing: 'border-box',
    textOverflow: 'ellipsis',
  },
  '& select.MuiInputBase-input': { paddingRight: 24, cursor: 'pointer' },
  '& .MuiNativeSelect-icon': { right: 3, fontSize: 18, color: 'inherit' },
})

/** Where a field has no text of its own around it, its name. */
interface Named {
  id?: string
  /** For those who hear the page, where no label is in sight. */
  label?: string
  disabled?: boolean
}

interface TextProps extends Named {
  value: string
  onChange: (value: string) => void
  onBlur?: () => void
  onKeyDown?: InputBaseProps['onKeyDown']
  onPaste?: () => void
  /** Pin names, quantities, numbers. */
  mono?: boolean
  /** What was typed can’t be so. */
  wrong?: boolean
  /** Of the element that says why. */
  describedBy?: string
  width?: CSSProperties['width']
  /** Width in letters. */
  size?: number
  placeholder?: string
  maxLength?: number
  required?: boolean
  autoFocus?: boolean
  type?: 'text' | 'search' | 'number'
  min?: number
  max?: number
  inputMode?: 'text' | 'decimal' | 'numeric'
  /** Several lines. */
  rows?: number
  className?: string
  ref?: Ref<HTMLInputElement>
}

export const TextInput = ({
  label,
  onChange,
  mono,
  wrong,
  describedBy,
  width,
  size,
  maxLength,
  min,
  max,
  inputMode,
  className = '',
  rows,
  ref,
  ...rest
}: TextProps) => (
  <Frame
    {...rest}
    className={`${mono ? 'mono ' : ''}${className}`.trim() || undefined}
    error={wrong}
    multiline={rows !== undefined}
    minRows={rows}
    inputRef={ref}
    sx={width === undefined ? undefined : { width }}
    onChange={(e) => onChange(e.target.value)}
    slotProps={{
      input: {
        'aria-label': label,
        'aria-describedby': describedBy,
        size,
        maxLength,
        min,
        max,
        inputMode,
        autoComplete: 'off',
      },
    }}
  />
)

export interface Option<V extends string | number = string> {
  value: V
  label: string
}

interface ChoiceProps<V extends string | number> extends Named {
  value: V
  options: readonly Option<V>[]
  onChange: (value: V) => void
  width?: CSSProperties['width']
}

/** One of several, as the machine’s own list: by keyboard, by touch, and on a phone as a wheel. */
export const Choice = <V extends string | number>({
  label,
  options,
  onChange,
  width,
  ...rest
}: ChoiceProps<V>) => (
  <NativeSelect
    {...rest}
    input={<Frame sx={width === undefined ? undefined : { width }} />}
    inputProps={{ 'aria-label': label }}
    onChange={(e) => {
      const chosen = options.find((o) => String(o.value) === e.target.value)
      if (chosen) onChange(chosen.value)
    }}
  >
    {options.map((o) => (
      <option key={o.value} value={o.value}>
        {o.label}
      </option>
    ))}
  </NativeSelect>
)

interface TickProps {
  checked: boolean
  onChange: (checked: boolean) => void
  /** For those who hear the page, where what stands beside it does not say it all. */
  label?: string
  /** Beside it; pressing that ticks as well. */
  children?: ReactNode
  className?: string
}

export const Tick = ({ checked, onChange, label, children, className }: TickProps) => {
  const box = (
    <Checkbox
      size="small"
      color="primary"
      disableRipple
      checked={checked}
      onChange={(e) => onChange(e.target.checked)}
      slotProps={{ input: { 'aria-label': label } }}
    />
  )
  return children === undefined ? (
    box
  ) : (
    <FormControlLabel className={className} control={box} label={children} />
  )
}
