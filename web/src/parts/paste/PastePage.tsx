// A part from its data sheet: tables pasted on the left, what was understood on the right, questions above, and below
// what is still missing for which check.

import { makeLibrary } from '@root-board/core/parts'
import type { Place, Understood, UnderstoodLimits } from '@root-board/core/intake'
import { Button, Tab, Tabs, styled } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { api, Problem } from '../../api/client'
import { ask, stopReading } from '../../worker/intake-client'
import { Completeness } from '../Completeness'
import { PartsBar } from '../PartsBar'
import { usePaste } from './draft'
import { FoundFacts } from './FoundFacts'
import { FoundLegs, legKey, placesOf } from './FoundLegs'
import { HeadForm } from './HeadForm'
import { NotUnderstood } from './NotUnderstood'
import { Questions } from './Questions'
import { OwnRules } from './OwnRules'
import { useRules, without } from './own-rules'
import { ExchangeFiles } from './ExchangeFiles'
import { idFrom, resultOf, withExchange } from './result'
import { SourceText } from './SourceText'
import { useRead } from './use-read'
import { TextInput } from '../../kit/inputs'
import { LibraryFoot, LibraryFrame, Spacer } from '../../kit/layout'

const tooMany = 20_000

const views = [
  { id: 'legs', title: 'Legs' },
  { id: 'limits', title: 'Limits' },
  { id: 'exchange', title: 'Exchange files' },
  { id: 'part', title: 'The part' },
] as const
type View = (typeof views)[number]['id']

const PastePage = () => {
  const draft = usePaste()
  const { set } = draft
  const [query, setQuery] = useSearchParams()
  // Limits and exchange files are of chips.
  const shownViews = views.filter(
    (v) =>
      draft.kind === 'chip' ||
      v.id === 'legs' ||
      v.id === 'part' ||
      (v.id === 'limits' && draft.kind !== 'board'),
  )
  const view: View = shownViews.find((v) => v.id === query.get('view'))?.id ?? 'legs'
  const [marked, setMarked] = useState<{ key: string; places: Place[] }>()
  const [typing, setTyping] = useState(true)
  const navigate = useNavigate()
  const queries = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const library = useMemo(() => parts.data && makeLibrary(parts.data), [parts.data])

  const legs = draft.kind === 'chip' && Number(draft.legs) > 0 ? Number(draft.legs) : undefined
  const board = draft.kind === 'board'
  const { rules, keep } = useRules()
  // What earlier sheets have taught holds until this one is answered otherwise.
  const answers =
    draft.kind !== 'chip' ? draft.answers : { ...without(rules, draft.askedAgain), ...draft.answers }
  const table = useRead<Understood>(JSON.stringify([draft.tableText, answers, legs, board]), () =>
    readable(draft.tableText) ? ask((w) => w.table(draft.tableText, { answers, legs, board })) : undefined,
  )
  const limitsOf = draft.kind === 'board' ? 'chip' : draft.kind
  const limits = useRead<UnderstoodLimits>(
    JSON.stringify([draft.limitsText, draft.limitAnswers, limitsOf]),
    () =>
      readable(draft.limitsText)
        ? ask((w) => w.limits(draft.limitsText, draft.limitAnswers, limitsOf))
        : undefined,
  )
  const whole = useMemo(() => withExchange(draft, table.result), [draft, table.result])
  const result = useMemo(
    () => resultOf(draft, whole, limits.result, library, draft.answers),
    [draft, whole, limits.result, library],
  )
  // What no table says is asked where the tables of limits are.
  const [toTell, toJoin] = partition(result.questions, (q) => q.id.startsWith('fact:'))
  const onLimits = view === 'limits'
  const text = onLimits ? draft.limitsText : draft.tableText
  const reading = onLimits ? limits : table
  const kinds: Record<number, string> = (onLimits ? limits.result?.kinds : table.result?.kinds) ?? {}
  const save = useMutation({
    mutationFn: () => api.addPart(result.file),
    onSuccess: async (made) => {
      await queries.invalidateQueries()
      if (draft.kind === 'chip') keep(draft.answers)
      draft.clear()
      enqueueSnackbar(`${made.part.name} is in the library.`)
      await navigate(`/parts/${made.id}`)
    },
  })
  const taken = save.error instanceof Problem && save.error.status === 409
  const show = (key: string, places: Place[]) => setMarked({ key, places })
  const chooseLine = (line: number) => {
    const leg = table.result?.legs.find((l) => placesOf(l).some((p) => p.line === line))
    const fact = limits.result?.facts.find((f) => f.line === line)
    if (onLimits) setMarked({ key: String(line), places: fact ? [fact.place] : [] })
    else if (leg) setMarked({ key: legKey(leg), places: placesOf(leg) })
  }
  const lines = text.split('\n').length
  return (
    <LibraryFrame>
      <PartsBar title="Put in a part from its sheet" />
      <Page>
        <HeadForm library={library} />
        <Tabs
          value={view}
          onChange={(_, v: View) => {
            setMarked(undefined)
            setQuery({ view: v }, { replace: true })
          }}
          aria-label="What is pasted"
        >
          {shownViews.map((v) => (
            <Tab key={v.id} value={v.id} label={v.title} />
          ))}
        </Tabs>
        {view === 'exchange' ? (
          <ExchangeFiles />
        ) : view === 'part' ? (
          <section aria-label="The part" style={{ padding: '10px 0' }}>
            {result.part ? (
              <>
                {whole!.faults.length > 0 && (
                  <>
                    <h2>What contradicts</h2>
                    <Contradictions faults={whole!.faults} />
                  </>
                )}
                {result.notes.length > 0 && (
                  <>
                    <h2>Taken so, and left to you</h2>
                    <ul>
                      {result.notes.map((n) => (
                        <li key={n}>{n}</li>
                      ))}
                    </ul>
                  </>
                )}
                <h2>What it can serve</h2>
                <Completeness part={result.part} />
              </>
            ) : (
              <p className="empty">Paste the table of its legs first; what it can serve then stands here.</p>
            )}
          </section>
        ) : (
          <>
            {(reading.result ?? (onLimits && toTell.length > 0)) && (
              <Questions
                questions={
                  onLimits
                    ? [...(limits.result?.questions ?? []), ...toTell]
                    : [...toJoin, ...(table.result?.questions ?? [])]
                }
                answers={onLimits ? draft.limitAnswers : draft.answers}
                answer={(answers) => set(onLimits ? { limitAnswers: answers } : { answers })}
                show={(places) => show('question', places)}
              />
            )}
            <Sides>
              <section aria-label="Pasted text">
                {typing || text === '' ? (
                  <TextInput
                    mono
                    rows={12}
                    label={
                      onLimits ? 'Table of its limits' : board ? 'Table of its header' : 'Table of its legs'
                    }
                    placeholder={
                      onLimits
                        ? limitsHint[limitsOf]
                        : 'Paste the table of its legs, as it is in the sheet, a spreadsheet or a CSV file.\nColumns in any order, with headings or without.'
                    }
                    value={text}
                    onChange={(typed) =>
                      set(
                        onLimits
                          ? { limitsText: typed, limitAnswers: {} }
                          : { tableText: typed, answers: {}, askedAgain: [] },
                      )
                    }
                    onPaste={() => setTyping(false)}
                  />
                ) : (
                  <SourceText
                    text={text}
                    kinds={kinds}
                    marked={marked?.places ?? []}
                    open={(onLimits ? limits.result?.open : table.result?.account.open) ?? []}
                    choose={chooseLine}
                  />
                )}
                <p className="paste-tools">
                  <Button onClick={() => setTyping(!typing)} disabled={text === ''}>
                    {typing ? 'Show what was understood of it' : 'Change the text'}
                  </Button>
                  {lines > tooMany && (
                    <span className="stops" role="alert">
                      {lines.toLocaleString('en')} lines are more than a table has: at most{' '}
                      {tooMany.toLocaleString('en')} are read.
                    </span>
                  )}
                </p>
              </section>
              <section aria-label="What was understood" aria-busy={reading.busy}>
                {reading.busy && (
                  <p className="faint" role="status">
                    Reading {lines} lines … <Button onClick={stopReading}>Stop</Button>
                  </p>
                )}
                {reading.fault && (
                  <p className="stops" role="alert">
                    Reading was stopped ({reading.fault}). Change the text to read again.
                  </p>
                )}
                {!reading.result && !reading.busy && (
                  <p className="empty">What is understood stands here, beside the text it came from.</p>
                )}
                {onLimits && limits.result && limits.result.open.length > 0 && (
                  <p className="risks">
                    {limits.result.open.length === 1
                      ? 'One number is not understood: it is'
                      : `${limits.result.open.length} numbers are not understood: they are`}{' '}
                    underlined in the text.
                  </p>
                )}
                {onLimits && limits.result && (
                  <FoundFacts of={limitsOf} limits={limits.result} chosen={marked?.key} choose={show} />
                )}
                {!onLimits && table.result && (
                  <>
                    <Counts table={whole ?? table.result} ofChip={draft.kind === 'chip'} />
                    {table.result.readings.length > 0 && (
                      <NotUnderstood
                        table={table.result}
                        answers={draft.answers}
                        answer={(answers) => set({ answers })}
                        show={(places) => {
                          setTyping(false)
                          show('open', places)
                        }}
                      />
                    )}
                    {draft.kind === 'chip' && (
                      <OwnRules
                        used={table.result.used.filter((id) => draft.answers[id] === undefined)}
                        askAgain={(id) => set({ askedAgain: [...draft.askedAgain, id] })}
                      />
                    )}
                    <FoundLegs
                      table={whole ?? table.result}
                      chosen={marked?.key}
                      choose={show}
                      answers={draft.answers}
                      answer={(answers) => set({ answers })}
                      says={result.says}
                    />
                  </>
                )}
              </section>
            </Sides>
          </>
        )}
      </Page>
      <LibraryFoot>
        <span>
          {result.part ? (
            <>
              <span className="settled">A valid part</span>, id{' '}
              <span className="mono">{idFrom(draft.name)}</span>
              {whole!.faults.length > 0 && (
                <span className="risks">
                  ; {whole!.faults.length === 1 ? 'one thing' : `${whole!.faults.length} things`} in what was
                  brought contradict{whole!.faults.length === 1 ? 's' : ''} another, told under “The part”
                </span>
              )}
            </>
          ) : (
            <span className="faint">
              {result.faults[0] ? result.faults[0].message : 'No table of legs has been pasted yet.'}
              {result.faults.length > 1 && ` And ${result.faults.length - 1} more.`}
            </span>
          )}
        </span>
        {save.error && (
          <span className="stops" role="alert">
            {save.error.message}
            {taken ? ': give this one another name, or change that one.' : '. Nothing was put in.'}
          </span>
        )}
        <Spacer />
        <Button
          onClick={() => {
            if (window.confirm('Forget what was pasted and answered?')) draft.clear()
          }}
        >
          Begin again
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!result.part || save.isPending}
          onClick={() => save.mutate()}
        >
          Put it in the library
        </Button>
      </LibraryFoot>
    </LibraryFrame>
  )
}

const limitsHint = {
  chip: 'Paste the tables of its limits: supply, currents, levels, temperatures …',
  regulator:
    'Paste the tables of its characteristics: input, output, drop-out, its own current, capacitors …',
  device: 'Paste the tables of its characteristics: supply, currents at rest and at work, levels, address …',
}
const partition = <T,>(all: T[], holds: (one: T) => boolean): [T[], T[]] => [
  all.filter(holds),
  all.filter((one) => !holds(one)),
]

const readable = (text: string) => text.trim() !== '' && text.split('\n').length <= tooMany

const Contradictions = ({ faults }: Pick<Understood, 'faults'>) =>
  faults.map((f) => (
    <p key={f.path + f.message} className="risks">
      <b>{f.path}</b> {f.message}
    </p>
  ))

const Counts = ({ table, ofChip }: { table: Understood; ofChip: boolean }) => {
  const functions = table.legs.reduce((n, l) => n + l.functions.length, 0)
  return (
    <div className="counts">
      <p>
        {table.total} legs, {table.legs.length} names
        {ofChip &&
          functions > 0 &&
          `, ${functions} functions of ${table.units.length} ${table.units.length === 1 ? 'unit' : 'units'}`}
        .
      </p>
      <Contradictions faults={table.faults} />
    </div>
  )
}

export default PastePage

const Page = styled('main')({
  padding: '8px 20px 0',
  minHeight: 0,
  display: 'flex',
  flexDirection: 'column',
  overflow: 'auto',
  position: 'relative',
  '& .MuiTabs-root': { minHeight: 38 },
  '& .paste-tools': { margin: '6px 0' },
  '& .counts p': { margin: '0 0 4px' },
})

const Sides = styled('div')({
  flex: 1,
  minHeight: 260,
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
  gap: 20,
  '& > section': {
    minHeight: 0,
    overflow: 'auto',
    display: 'flex',
    flexDirection: 'column',
    padding: '6px 3px 0',
  },
  '& textarea': {
    flex: 1,
    minHeight: 200,
    width: '100%',
    resize: 'none',
    whiteSpace: 'pre',
    font: '400 12.5px/1.5 var(--mono)',
    color: 'inherit',
    padding: 8,
  },
  '& textarea::placeholder': { whiteSpace: 'pre-wrap' },
  '@media (max-width: 900px)': {
    gridTemplateColumns: 'minmax(0, 1fr)',
    '& > section': { minHeight: 300 },
  },
})
