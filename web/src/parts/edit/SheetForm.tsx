// All fields of a part in the order of its sheet, with the sheet’s contents beside them: what is assumed and what is wrong in
// which section.

import { formAt, sheetSections } from '@root-board/core/parts'
import { styled } from '@mui/material'
import { useId } from 'react'
import { Flat } from '../../kit/Flat'
import { type Editing, Field } from './Fields'

const isUnder = (path: string, field: string): boolean =>
  path === field || path.startsWith(`${field}.`) || path.startsWith(`${field}[`)

/** How much of a section is wrong or only assumed. */
const stateOf = ({ faults, data }: Editing, fields: string[]) => {
  const { assumed = [] } = data as { assumed?: readonly string[] }
  const count = (paths: readonly string[]) =>
    paths.filter((path) => fields.some((field) => isUnder(path, field))).length
  return { wrong: count(faults.map((f) => f.path)), assumed: count(assumed) }
}

export const SheetForm = ({ editing }: { editing: Editing }) => {
  const id = useId()
  const form = formAt(editing.kind, [], editing.data)
  const required = new Set(
    form?.is === 'group' ? form.fields.filter((f) => f.required).map((f) => f.name) : [],
  )
  const sections = sheetSections(editing.kind)
  const go = (index: number) => {
    const heading = document.getElementById(`${id}${index}`)
    heading?.scrollIntoView({ block: 'start' })
    heading?.focus()
  }
  return (
    <Sheet>
      <nav aria-label="Contents of the sheet">
        <ol>
          {sections.map((section, i) => {
            const { wrong, assumed } = stateOf(editing, section.fields)
            return (
              <li key={section.title}>
                <Flat onClick={() => go(i)}>
                  {section.title}
                  {wrong > 0 && (
                    <span className="stops">
                      {' '}
                      {wrong} fault{wrong > 1 ? 's' : ''}
                    </span>
                  )}
                  {assumed > 0 && <span className="risks"> ○ {assumed} assumed</span>}
                </Flat>
              </li>
            )
          })}
        </ol>
      </nav>
      <div>
        {sections.map((section, i) => (
          <section key={section.title} aria-labelledby={`${id}${i}`}>
            <h2 id={`${id}${i}`} tabIndex={-1}>
              {section.title}
            </h2>
            <div className="fields">
              {section.fields.map((name) => (
                <Field key={name} editing={editing} steps={[name]} required={required.has(name)} />
              ))}
            </div>
          </section>
        ))}
      </div>
    </Sheet>
  )
}

const Sheet = styled('div')({
  display: 'grid',
  gridTemplateColumns: '176px minmax(0, 1fr)',
  gap: 24,
  '& nav': { position: 'sticky', top: 0, alignSelf: 'start', fontSize: 13 },
  '& ol': { listStyle: 'none', margin: 0, padding: 0 },
  '& li button': { padding: '3px 0', display: 'block' },
  '& section': { marginBottom: 22 },
  '& section > h2': { borderBottom: '1.5px solid var(--ink)', marginBottom: 8, scrollMarginTop: 8 },
  '@media (max-width: 999px)': { gridTemplateColumns: 'minmax(0, 1fr)', '& nav': { position: 'static' } },
})
