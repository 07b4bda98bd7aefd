// What the meter said of the built thing, against what was predicted: whether they agree, what could explain the difference, how to
// find out which it is, and what it was.

import { yupResolver } from '@hookform/resolvers/yup'
import type { Design, Measurement } from '@root-board/core/design'
import type { Compared } from '@root-board/core/power'
import { formatQuantity, parseQuantity, type Unit } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import { useState } from 'react'
import { type Control, Controller, useForm, useWatch } from 'react-hook-form'
import { object, string } from 'yup'
import { Caution } from '../../kit/Caution'
import { Choice, type Option, TextInput } from '../../kit/inputs'
import { Labelled } from '../../kit/Labelled'
import { Line, Spacer } from '../../kit/layout'
import { Num } from '../../kit/Num'
import { useStage } from '../../shared/analysis'
import { quantityText } from '../../shared/schemas'
import { TypedField } from '../../shared/TypedField'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { NotPlanned } from './NotPlanned'
import { SourceCautions } from './SourceCautions'

const ask = (design: Design) => questions.measured(design)

export const Measured = () => {
  const { analysis, design } = useStage()
  const [adding, setAdding] = useState(false)
  const measured = design.power.measured ?? []
  return (
    <section aria-labelledby="measured">
      <Line>
        <h2 id="measured">What the meter says</h2>
        <Spacer />
        {!adding && <Button onClick={() => setAdding(true)}>Note a measured current</Button>}
      </Line>
      {measured.length === 0 && !adding && (
        <p className="faint">
          Once it is built: note what a meter said in one of its states, and see whether that was to be
          expected, and if not, what explains the difference.
        </p>
      )}
      {adding && <MeasuredForm done={() => setAdding(false)} states={analysis.power.states} />}
      {measured.length > 0 && <All />}
    </section>
  )
}

const All = () => {
  const { analysis } = useStage()
  const { answer, current, failed, again } = useAsked(ask)
  return (
    <>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Looking for what explains it …" />}
      {analysis.pins.plan?.status === 'undecided' && (
        <NotPlanned so="More may be to be expected than is predicted here." />
      )}
      <List aria-busy={!current}>
        {answer?.map((c) => (
          <li key={c.measurement.id}>
            <One {...c} />
          </li>
        ))}
      </List>
    </>
  )
}

const verdicts = { agrees: 'as predicted', more: 'more than predicted', less: 'less than predicted' }

const One = ({
  measurement: m,
  state,
  reading,
  predicted,
  difference,
  verdict,
  meter,
  suspects,
  leftOut,
}: Compared) => {
  const { edit } = useStage()
  const isOpen = m.found === undefined && verdict !== undefined && verdict !== 'agrees'
  const explained = suspects.some((s) => s.explains)
  return (
    <>
      <Line>
        <b>
          <Num worked={reading}>{formatQuantity(m.reading, 'A')}</Num>
        </b>
        <span>
          {state?.name ?? `in a state that is gone (${m.state})`},{' '}
          {m.at === 'rail' ? 'at the rail' : 'at the source'}
        </span>
        {verdict && <span className={verdict === 'agrees' ? 'settled' : 'risks'}>{verdicts[verdict]}</span>}
        <Spacer />
        <Button
          onClick={() => edit({ kind: 'removeMeasurement', id: m.id })}
          aria-label={`Take away ${formatQuantity(m.reading, 'A')}, ${state?.name ?? m.state}`}
        >
          Take away
        </Button>
      </Line>
      {predicted ? (
        <p>
          Predicted: <Num worked={predicted} show="range" />, usually <Num worked={predicted} />
          {difference && verdict !== 'agrees' && (
            <>
              ; the difference is <Num worked={difference} />
            </>
          )}
          . <span className="faint">Nothing pressed, and lines as they rest.</span>
        </p>
      ) : (
        <p className="faint">
          {state ? 'There is no source to take it from.' : 'The project has no such state any more.'}
        </p>
      )}
      {meter.map((said) => (
        <p key={said.text} className="risks">
          {said.text}
        </p>
      ))}
      {m.found !== undefined && (
        <p>
          It was: <b>{m.found}</b>{' '}
          <Button onClick={() => edit({ kind: 'changeMeasurement', id: m.id, change: { found: undefined } })}>
            Look again
          </Button>
        </p>
      )}
      {isOpen && (
        <>
          <h3>
            {explained
              ? 'What would explain it, the likeliest first'
              : suspects.length > 0
                ? 'Nothing known here explains all of it; a part of it could be'
                : 'Nothing that is known here explains it'}
          </h3>
          {suspects.length > 0 && (
            <ol aria-label={`What would explain ${formatQuantity(m.reading, 'A')}`}>
              {suspects.map((s) => (
                <li key={s.id}>
                  {s.what.text}: <Num worked={s.change} />, with which the meter would say{' '}
                  <Num worked={s.then} />.{' '}
                  <Button
                    onClick={() =>
                      edit({ kind: 'changeMeasurement', id: m.id, change: { found: s.what.text } })
                    }
                    aria-label={`It was this: ${s.what.text}`}
                  >
                    It was this
                  </Button>
                  <br />
                  <span className="faint">To find out: {s.test.text}</span>
                </li>
              ))}
            </ol>
          )}
          {leftOut > 0 && (
            <p className="faint">
              {leftOut} more would move it the same way, and {leftOut > 1 ? 'are' : 'is'} less likely by far.
            </p>
          )}
          <Found id={m.id} />
        </>
      )}
    </>
  )
}

/** What it turned out to be, in the builder’s own words. */
const Found = ({ id }: { id: string }) => {
  const { edit } = useStage()
  const [words, setWords] = useState('')
  const note = () => words.trim() && edit({ kind: 'changeMeasurement', id, change: { found: words.trim() } })
  return (
    <Line>
      <TextInput
        label="What it turned out to be"
        placeholder="or what it turned out to be"
        value={words}
        width={280}
        maxLength={200}
        onChange={setWords}
        onKeyDown={(e) => e.key === 'Enter' && note()}
      />
      <Button onClick={note} disabled={!words.trim()}>
        Note it
      </Button>
    </Line>
  )
}

const schema = object({
  state: string().required(),
  at: string<Measurement['at']>().oneOf(['source', 'rail']).required(),
  reading: quantityText('A', 0, 1000).test(
    'said',
    'What did the meter say? 2.3 mA, 40 uA …',
    (t) => t?.trim() !== '',
  ),
  range: quantityText('A', 1e-9, 1000),
  burden: quantityText('Ω', 0, 1e6),
  accuracy: string()
    .default('')
    .test('share', 'From 0 to 50 %, as 1.5', (t) => {
      const of = Number(t.replace('%', '').trim())
      return Number.isFinite(of) && of >= 0 && of <= 50
    }),
})
interface Values {
  state: string
  at: Measurement['at']
  reading: string
  range: string
  burden: string
  accuracy: string
}

const ChosenField = ({
  control,
  name,
  label,
  options,
}: {
  control: Control<Values>
  name: 'state' | 'at'
  label: string
  options: readonly Option[]
}) => (
  <Controller
    control={control}
    name={name}
    render={({ field }) => (
      <Labelled name={label}>
        {({ id }) => <Choice id={id} value={field.value} options={options} onChange={field.onChange} />}
      </Labelled>
    )}
  />
)

const MeasuredForm = ({
  states,
  done,
}: {
  states: readonly { id: string; name: string; asleep: boolean }[]
  done: () => void
}) => {
  const { analysis, design, edit } = useStage()
  const { control, handleSubmit } = useForm<Values>({
    resolver: yupResolver(schema) as never,
    defaultValues: {
      // What surprises is mostly how much it takes asleep.
      state: (states.find((s) => s.asleep) ?? states[0])?.id ?? '',
      at: 'source',
      reading: '',
      range: '',
      burden: '',
      accuracy: '',
    },
  })
  const at = useWatch({ control, name: 'at' })
  const free = (n: number): string =>
    design.power.measured?.some((m) => m.id === `m${n}`) ? free(n + 1) : `m${n}`
  const note = handleSubmit((v) => {
    const number = (t: string, unit: Unit) => (t.trim() === '' ? undefined : parseQuantity(t, unit))
    const [range, burden] = [number(v.range, 'A'), number(v.burden, 'Ω')]
    edit({
      kind: 'addMeasurement',
      measurement: {
        id: free(1),
        state: v.state,
        at: v.at,
        reading: parseQuantity(v.reading, 'A'),
        ...(range !== undefined && { range }),
        ...(burden !== undefined && { burden }),
        ...(v.accuracy.trim() !== '' && { accuracy: Number(v.accuracy.replace('%', '')) / 100 }),
      },
    })
    done()
  })
  return (
    <form onSubmit={(e) => void note(e)} aria-label="A measured current">
      <Grid>
        <TypedField
          control={control}
          mono
          name="reading"
          label="The meter said"
          placeholder="2.3 mA"
          autoFocus
        />
        <ChosenField
          control={control}
          name="state"
          label="while it was"
          options={states.map((s) => ({ value: s.id, label: s.name }))}
        />
        <ChosenField
          control={control}
          name="at"
          label="measured"
          options={[
            { value: 'source', label: 'at the source' },
            { value: 'rail', label: 'at the rail, fed there' },
          ]}
        />
        <TypedField
          control={control}
          mono
          name="range"
          label="Range of the meter"
          serves="if known"
          placeholder="20 mA"
        />
        <TypedField
          control={control}
          mono
          name="burden"
          label="Ohms inside it there"
          serves="if known"
          placeholder="10"
        />
        <TypedField
          control={control}
          mono
          name="accuracy"
          label="Off by up to, %"
          serves="if known"
          placeholder="1.5"
        />
      </Grid>
      <Caution name="meter" />
      {at === 'rail' && <Caution name="two-supplies" />}
      <SourceCautions source={analysis.power.source} />
      <Line>
        <Button type="submit" variant="contained" color="primary">
          Compare
        </Button>
        <Button onClick={done}>Cancel</Button>
      </Line>
    </form>
  )
}

const Grid = styled('div')({
  display: 'grid',
  gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))',
  gap: 12,
  margin: '6px 0',
})
const List = styled('ul')({
  listStyle: 'none',
  margin: 0,
  padding: 0,
  '& > li': { borderTop: '1px solid var(--line)', padding: '8px 0' },
  '& p': { margin: '4px 0' },
  '& h3': { margin: '8px 0 2px' },
  '& ol': { margin: '2px 0 6px', paddingLeft: 24 },
  '& ol > li': { marginBottom: 6 },
})
