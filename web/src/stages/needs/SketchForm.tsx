// A device that the library does not have, in a minute: six fields, begun from the line that was typed. What is not said is
// assumed, and stands below before anything is added.

import { yupResolver } from '@hookform/resolvers/yup'
import { capital, formatQuantity, parseQuantity, type Unit } from '@root-board/core/quantity'
import {
  hazardsIn,
  readSketch,
  type Sketch,
  sketchedPart,
  type SketchSort,
  sketchSorts,
  sortWords,
  touchable,
} from '@root-board/core/sketch'
import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle, styled } from '@mui/material'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Controller, useForm, useWatch } from 'react-hook-form'
import { object, string } from 'yup'
import { makeLibrary, type Part } from '@root-board/core/parts'
import { api } from '../../api/client'
import { Caution } from '../../kit/Caution'
import { Choice } from '../../kit/inputs'
import { Mark } from '../../kit/Mark'
import { Labelled } from '../../kit/Labelled'
import { quantityText } from '../../shared/schemas'
import { TypedField } from '../../shared/TypedField'
import { useProject } from '../../store/project'

const names = string()
  .default('')
  .matches(/^[\w.:/+\-\s,]*$/, 'Names of letters and digits, at commas')

const schema = object({
  name: string().trim().required('What is it called?').max(80, 'At most 80 letters'),
  sort: string<SketchSort>().oneOf(sketchSorts).required(),
  supply: quantityText(
    'V',
    0.5,
    touchable,
    `More than ${touchable} V is not for this board: it belongs behind a relay or a module, wired by a licensed electrician.`,
  ),
  rest: quantityText('A', 0, 20),
  work: quantityText('A', 0, 20),
  address: string()
    .default('')
    .matches(/^(0x[0-7]?[0-9a-f])?$/i, 'Like 0x3C, at most 0x7F'),
  drives: names,
  reads: names,
})
interface Values {
  name: string
  sort: SketchSort
  supply: string
  rest: string
  work: string
  address: string
  drives: string
  reads: string
}

const text = (value: number | undefined, unit: Unit) =>
  value === undefined ? '' : formatQuantity(value, unit)
const valuesOf = ({ name, sort, supply, rest, work, address, drives = [], reads = [] }: Sketch): Values => ({
  name: capital(name),
  sort,
  supply: text(supply, 'V'),
  rest: text(rest, 'A'),
  work: text(work, 'A'),
  address: address === undefined ? '' : `0x${address.toString(16).toUpperCase()}`,
  drives: drives.join(', '),
  reads: reads.join(', '),
})
/** `line`: what was typed, which may name what can hurt someone. */
const sketchOf = (v: Values, line: string): Sketch => {
  const number = (t: string, unit: Unit) => (t.trim() === '' ? undefined : parseQuantity(t, unit))
  const list = (t: string) => t.split(/[\s,]+/).filter(Boolean)
  const fed = v.sort !== 'contact' && v.sort !== 'led'
  return {
    name: v.name.trim(),
    sort: v.sort,
    supply: fed ? number(v.supply, 'V') : undefined,
    rest: fed ? number(v.rest, 'A') : undefined,
    work: v.sort === 'contact' ? undefined : number(v.work, 'A'),
    address: v.sort === 'two-wire' && v.address ? parseInt(v.address, 16) : undefined,
    hazards: hazardsIn(`${line.replace(':', ' ')} ${v.name}`),
    ...(v.sort === 'module' ? { drives: list(v.drives), reads: list(v.reads) } : {}),
  }
}

const Grid = styled('div')({
  display: 'grid',
  gridTemplateColumns: 'repeat(auto-fit, minmax(180px, 1fr))',
  gap: 12,
})

interface Props {
  /** As it was typed: “pump: motor 12 V 0.4 A”. */
  line: string
  taken: (id: string) => boolean
  /** The part is in the library; absent: nothing came of it. */
  done: (made?: { id: string; name: string }) => void
}

const freeId = (name: string, taken: (id: string) => boolean): string => {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
  for (let n = 1; ; n++) {
    const id = `${plain || 'device'}-sketch${n > 1 ? `-${n}` : ''}`
    if (!taken(id)) return id
  }
}

export const SketchForm = ({ line, taken, done }: Props) => {
  const read = readSketch(line)
  const { control, handleSubmit, formState } = useForm<Values>({
    defaultValues: valuesOf(read.sketch),
    resolver: yupResolver(schema),
    mode: 'onTouched',
  })
  const values = useWatch({ control }) as Values
  const queries = useQueryClient()
  const add = useMutation({
    mutationFn: async (v: Values) => {
      const { file } = sketchedPart(sketchOf(v, line), freeId(v.name, taken))
      const { id } = await api.addPart(file)
      await queries.invalidateQueries({ queryKey: ['parts'] })
      // The project takes the facts of what is added from the library as it is now.
      useProject.getState().setLibrary(makeLibrary(queries.getQueryData<Part[]>(['parts']) ?? []))
      return { id, name: v.name.trim() }
    },
    onSuccess: done,
  })
  const whole = schema.isValidSync(values)
  const sketched = whole ? sketchedPart(sketchOf(values, line), 'x') : undefined
  const { sort } = values
  const fed = sort !== 'contact' && sort !== 'led'
  return (
    <Dialog open onClose={() => done()} fullWidth maxWidth="md" aria-labelledby="sketch-title">
      <form
        onSubmit={(e) => {
          void handleSubmit((v) => add.mutate(v))(e)
        }}
      >
        <DialogTitle id="sketch-title">Sketch a device</DialogTitle>
        <DialogContent>
          {read.unread.length > 0 && (
            <Alert severity="warning" icon={<Mark severity="risks" />} sx={{ mb: 1.5 }}>
              Not understood of what was typed: {read.unread.join(', ')}.
            </Alert>
          )}
          <Grid>
            <TypedField control={control} name="name" label="Name" autoFocus />
            <Controller
              control={control}
              name="sort"
              render={({ field }) => (
                <Labelled name="What sort of thing">
                  {({ id }) => (
                    <Choice
                      id={id}
                      value={field.value}
                      options={sketchSorts.map((s) => ({ value: s, label: sortWords[s] }))}
                      onChange={field.onChange}
                    />
                  )}
                </Labelled>
              )}
            />
            {fed && <TypedField control={control} name="supply" label="Supply" placeholder="5 V" mono />}
            {sort !== 'contact' && (
              <TypedField control={control} name="work" label="Current at work" placeholder="20 mA" mono />
            )}
            {fed && (
              <TypedField
                control={control}
                name="rest"
                label="Current at rest"
                placeholder="not known"
                mono
              />
            )}
            {sort === 'two-wire' && (
              <TypedField control={control} name="address" label="Address" placeholder="0x3C" mono />
            )}
            {sort === 'module' && (
              <>
                <TypedField
                  control={control}
                  name="drives"
                  label="Lines that the chip drives"
                  placeholder="EN, DIR"
                  mono
                />
                <TypedField
                  control={control}
                  name="reads"
                  label="Lines that the chip reads"
                  placeholder="READY"
                  mono
                />
              </>
            )}
          </Grid>
          <h3 style={{ marginTop: 16 }}>What is assumed until its sheet is read</h3>
          {sketched ? (
            <ul style={{ margin: '4px 0', paddingLeft: 18 }}>
              {sketched.assumed.map((a) => (
                <li key={a.words} className="risks">
                  {a.words}
                </li>
              ))}
            </ul>
          ) : (
            <p className="faint">Shown once every field can be read.</p>
          )}
          {sketched?.cautions.map((name) => (
            <Caution key={name} name={name} />
          ))}
          {add.error && (
            <Alert severity="error" icon={<Mark severity="stops" />}>
              It was not added: {add.error.message}. Nothing was changed.
            </Alert>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => done()}>Not now</Button>
          <Button
            type="submit"
            variant="contained"
            color="primary"
            disabled={add.isPending || (formState.isSubmitted && !formState.isValid)}
          >
            {add.isPending ? 'Adding …' : 'Add it'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
