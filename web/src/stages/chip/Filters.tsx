import { styled } from '@mui/material'
import type { CandidateChip } from '@root-board/core/chip'
import { fullRange } from '@root-board/core/quantity'
import { Choice, Tick, TextInput } from '../../kit/inputs'

export interface Filter {
  /** Part of a name, a family or a keyword. */
  named: string
  fits: boolean
  sort: 'all' | 'chips' | 'modules' | 'boards'
  solder: 'all' | 'through-hole' | 'by hand'
  logic: 'all' | '3.3 V' | '5 V'
  radio: boolean
  /** Euro, at most; empty for any. */
  price: string
  /** Kibibytes of program memory, the loader's share taken off; empty for any. */
  memory: string
}
export const noFilter: Filter = {
  named: '',
  fits: false,
  sort: 'all',
  solder: 'all',
  logic: 'all',
  radio: false,
  price: '',
  memory: '',
}

const limit = (text: string): number | undefined => {
  const value = Number(text.replace(',', '.'))
  return text.trim() === '' || Number.isNaN(value) ? undefined : value
}

const logicOf = ({ chip }: CandidateChip) => fullRange(chip.board?.logic ?? chip.supply.recommended)

export const passes = (c: CandidateChip, f: Filter): boolean => {
  const { chip } = c
  const sort = chip.board ? 'boards' : chip.package.style === 'module' ? 'modules' : 'chips'
  const volts = f.logic === '5 V' ? 5 : 3.3
  const logic = logicOf(c)
  const words = [chip.name, chip.family, chip.description, ...(chip.keywords ?? [])].join(' ').toLowerCase()
  const memory = chip.memory.program - (chip.memory.loader ?? 0)
  return (
    words.includes(f.named.trim().toLowerCase()) &&
    chip.price <= (limit(f.price) ?? Infinity) &&
    memory >= 1024 * (limit(f.memory) ?? 0) &&
    (!f.fits || c.fits) &&
    (f.sort === 'all' || f.sort === sort) &&
    (f.solder === 'all' ||
      chip.package.solder === 'through-hole' ||
      (f.solder === 'by hand' && chip.package.solder === 'surface by hand')) &&
    (f.logic === 'all' || (logic.min <= volts + 0.05 && logic.max >= volts - 0.05)) &&
    (!f.radio || chip.radio !== undefined)
  )
}

export const Filters = ({ filter, set }: { filter: Filter; set: (f: Filter) => void }) => {
  const choice = <K extends 'sort' | 'solder' | 'logic'>(
    key: K,
    label: string,
    options: Record<Filter[K], string>,
  ) => (
    <label>
      {label}{' '}
      <Choice
        value={filter[key]}
        options={Object.entries<string>(options).map(([value, text]) => ({
          value: value as Filter[K],
          label: text,
        }))}
        onChange={(value) => set({ ...filter, [key]: value })}
      />
    </label>
  )
  const tick = (key: 'fits' | 'radio', label: string) => (
    <Tick checked={filter[key]} onChange={(on) => set({ ...filter, [key]: on })}>
      {label}
    </Tick>
  )
  const typed = (key: 'named' | 'price' | 'memory', label: string, unit: string, size: number) => (
    <label>
      {label}{' '}
      <TextInput
        size={size}
        inputMode={unit ? 'decimal' : 'text'}
        value={filter[key]}
        onChange={(text) => set({ ...filter, [key]: text })}
      />{' '}
      {unit}
    </label>
  )
  return (
    <Line role="group" aria-label="Show only">
      {typed('named', 'Named', '', 12)}
      {tick('fits', 'what fits')}
      {choice('sort', 'Kind', { all: 'all', chips: 'bare chips', modules: 'modules', boards: 'boards' })}
      {choice('solder', 'Solder', {
        all: 'any',
        'through-hole': 'through holes',
        'by hand': 'by hand',
      })}
      {choice('logic', 'Logic', { all: 'any', '3.3 V': '3.3 V', '5 V': '5 V' })}
      {tick('radio', 'with radio')}
      {typed('price', 'Up to', '€', 4)}
      {typed('memory', 'Program from', 'KiB', 4)}
    </Line>
  )
}

const Line = styled('div')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: '6px 18px',
  alignItems: 'baseline',
})
