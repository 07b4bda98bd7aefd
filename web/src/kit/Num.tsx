// A number that opens its working.

import type { Shown } from '@root-board/core/findings'
import { printShown, type Unit } from '@root-board/core/quantity'
import { Popover, type PopoverActions, styled } from '@mui/material'
import { lazy, type ReactNode, Suspense, useId, useRef, useState } from 'react'
import { Flat } from './Flat'

const fetchWorking = () => import('./Working')
const Working = lazy(fetchWorking)

/** A printed number with its unit set lighter; the space between them is a real one, also when copied. */
const Printed = ({ number, unit }: { number: string; unit: string }) => (
  <>
    {number}
    {unit && <span className="unit">{`\u202f${unit}`}</span>}
  </>
)

export const Quantity = ({ value, unit, digits = 3 }: { value: number; unit: Unit; digits?: number }) => (
  <span className="mono">
    <Printed {...printShown(value, unit, digits)} />
  </span>
)

const Opens = styled(Flat)({
  fontFamily: 'var(--mono)',
  fontVariantNumeric: 'tabular-nums slashed-zero',
  borderBottom: '1px dotted var(--faint)',
  lineHeight: 1.25,
  whiteSpace: 'nowrap',
  '&:hover': { borderBottomStyle: 'solid' },
})

interface Props {
  worked: Shown
  /** Which corner to show, where it isn’t the one that counts or the usual one; `range` shows least to greatest. */
  show?: 'min' | 'typ' | 'max' | 'range'
  digits?: number
  /** Shown instead of the number: a time in hours, a price. */
  children?: ReactNode
}

export const Num = ({ worked, show = worked.counts ?? 'typ', digits = 3, children }: Props) => {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const id = useId()
  const popover = useRef<PopoverActions>(null)
  return (
    <>
      <Opens
        className="num"
        aria-haspopup="dialog"
        aria-expanded={anchor !== undefined}
        aria-controls={anchor ? id : undefined}
        title={`${worked.label}: show the working`}
        onPointerEnter={() => void fetchWorking()}
        onFocus={() => void fetchWorking()}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        {children ??
          (show === 'range' ? (
            <RangeNumber worked={worked} digits={digits} />
          ) : (
            <Quantity value={worked.value[show]} unit={worked.unit} digits={digits} />
          ))}
      </Opens>
      <Popover
        id={id}
        action={popover}
        open={anchor !== undefined}
        anchorEl={anchor}
        onClose={() => setAnchor(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': `Working: ${worked.label}` } }}
      >
        <Suspense
          fallback={
            <p className="faint" style={{ padding: '12px 16px' }}>
              Loading …
            </p>
          }
        >
          <Working
            worked={worked}
            corner={show === 'range' ? 'max' : show}
            resized={() => popover.current?.updatePosition()}
          />
        </Suspense>
      </Popover>
    </>
  )
}

const RangeNumber = ({ worked, digits }: { worked: Shown; digits: number }) => {
  const { min, max } = worked.value
  const a = printShown(min, worked.unit, digits)
  const b = printShown(max, worked.unit, digits)
  if (a.number === b.number && a.unit === b.unit)
    return <Quantity value={max} unit={worked.unit} digits={digits} />
  return (
    <span className="mono">
      <Printed number={a.number} unit={a.unit === b.unit ? '' : a.unit} /> … <Printed {...b} />
    </span>
  )
}
