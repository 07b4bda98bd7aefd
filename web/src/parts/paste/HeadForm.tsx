// What can't be read from a table: what the part is called, and for a board its chip and voltages.

import { type Library, partsOfKind } from '@root-board/core/parts'
import { useId } from 'react'
import { type PasteDraft, usePaste } from './draft'

const Field = ({
  name,
  label,
  width = 150,
  placeholder,
  required,
}: {
  name: keyof PasteDraft
  label: string
  width?: number
  placeholder?: string
  required?: boolean
}) => {
  const id = useId()
  const value = usePaste((s) => s[name]) as string
  const set = usePaste((s) => s.set)
  return (
    <span className="field">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className="plain"
        style={{ width }}
        value={value}
        placeholder={placeholder}
        required={required}
        maxLength={200}
        onChange={(e) => set({ [name]: e.target.value })}
      />
    </span>
  )
}

export const HeadForm = ({ library }: { library: Library | undefined }) => {
  const { kind, style, chip, set } = usePaste()
  const ids = [useId(), useId(), useId()]
  const chips = library ? partsOfKind(library, 'chip') : []
  return (
    <div className="paste-head">
      <span className="field">
        <label htmlFor={ids[0]}>What is it?</label>
        <select
          id={ids[0]}
          className="plain"
          value={kind}
          onChange={(e) => set({ kind: e.target.value as PasteDraft['kind'], answers: {} })}
        >
          <option value="chip">a chip or module</option>
          <option value="board">a board with headers</option>
        </select>
      </span>
      <Field name="name" label="Its name" required />
      <Field name="sheet" label="Its data sheet" width={190} placeholder="title, issue" />
      <Field name="price" label="Price, €" width={70} />
      {kind === 'chip' ? (
        <>
          <span className="field">
            <label htmlFor={ids[1]}>Package</label>
            <select
              id={ids[1]}
              className="plain"
              value={style}
              onChange={(e) => set({ style: e.target.value })}
            >
              <option value="">by its number of legs</option>
              <option value="dip">through holes, two rows (2.54 mm)</option>
              <option value="two-sided">flat, two sides</option>
              <option value="four-sided">flat, four sides</option>
              <option value="module">module</option>
            </select>
          </span>
          <Field name="legs" label="Legs" width={60} placeholder="all" />
        </>
      ) : (
        <>
          <span className="field">
            <label htmlFor={ids[2]}>Chip on it</label>
            <select
              id={ids[2]}
              className="plain"
              value={chip}
              onChange={(e) => set({ chip: e.target.value, answers: {} })}
            >
              <option value="">choose …</option>
              {chips.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </span>
          <Field name="logic" label="Logic" width={70} />
          <Field name="inputMin" label="Input from" width={70} />
          <Field name="inputMax" label="to" width={70} />
        </>
      )}
    </div>
  )
}
