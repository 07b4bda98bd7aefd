// The field of the search box with what it finds; loaded when the box is opened for the first time.

import { stances } from '@root-board/core/design'
import { Autocomplete, TextField } from '@mui/material'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useStage } from '../shared/analysis'
import { useProject } from '../store/project'
import { useFrame } from './frame-state'
import type { legFinder } from './leg-hits'
import { stages } from './stages'

interface Hit {
  kind: string
  text: string
  more: string
  go: () => void
}

/** `typed`: what was typed while this was still being loaded. */
const SearchField = ({ close, typed }: { close: () => void; typed: string }) => {
  const { analysis, design, library, edit } = useStage()
  const { done, undone, undo, redo } = useProject()
  const set = useFrame((s) => s.set)
  const navigate = useNavigate()
  const [text, setText] = useState(typed)
  const fixed = useMemo((): Hit[] => {
    const to = (path: string) => () => void navigate(path)
    return [
      ...stages.map((s, i) => ({ kind: 'Stage', text: s.title, more: `key ${i + 1}`, go: to(s.name) })),
      ...analysis.needs.signals.map((s) => ({
        kind: 'Signal',
        text: s.name,
        more: analysis.pins.assignment[s.id] ? `on ${analysis.pins.assignment[s.id]}` : 'no leg yet',
        go: to(`pins?signal=${encodeURIComponent(s.id)}`),
      })),
      ...design.needs.devices.map((d) => ({
        kind: 'Need',
        text: d.name,
        more: d.count > 1 ? `${d.count} of them` : '',
        go: to(`needs?device=${d.id}`),
      })),
      ...analysis.findings.map((f) => ({
        kind: 'Finding',
        text: f.text,
        more: f.stage,
        go: () => {
          set({ evidence: true, finding: f.id })
          void navigate(f.stage)
        },
      })),
      ...analysis.build.placed.map((p) => ({
        kind: 'Part',
        text: `${p.ref} ${p.name}`,
        more: `${p.part.name} ${p.support?.value?.marking ?? ''}`,
        go: to('build?view=parts'),
      })),
      ...analysis.build.nets.map((n) => ({
        kind: 'Net',
        text: n.name,
        more: `${n.nodes.length} ends`,
        go: to('build?view=wiring'),
      })),
      ...(done.length > 0
        ? [{ kind: 'Do', text: `Undo: ${done.at(-1)!.label}`, more: 'Ctrl Z', go: undo }]
        : []),
      ...(undone.length > 0
        ? [{ kind: 'Do', text: `Redo: ${undone.at(-1)!.label}`, more: 'Ctrl Shift Z', go: redo }]
        : []),
      ...stances
        .filter((s) => s !== design.stance)
        .map((stance) => ({
          kind: 'Do',
          text: `Stance: ${stance.replaceAll('-', ' ')}`,
          more: '',
          go: () => edit({ kind: 'setStance', stance }),
        })),
      { kind: 'Do', text: 'Plan the pins afresh', more: 'locks stay', go: () => edit({ kind: 'replan' }) },
      { kind: 'Do', text: 'Print the build sheet', more: '', go: to('sheet') },
      { kind: 'Do', text: 'Print cards, or take them as pictures', more: '', go: to('cards') },
    ]
  }, [analysis, design, done, undone, undo, redo, edit, navigate, set])
  const [find, setFind] = useState<ReturnType<typeof legFinder>>()
  useEffect(() => {
    let open = true
    void import('./leg-hits').then((m) => {
      if (open) setFind(() => m.legFinder(analysis, library))
    })
    return () => {
      open = false
    }
  }, [analysis, library])
  const legs = useMemo(
    (): Hit[] =>
      find && text.trim()
        ? find(text).map(({ pin, text, more }) => ({
            kind: 'Leg',
            text,
            more,
            go: () => void navigate(`pins?leg=${encodeURIComponent(pin)}`),
          }))
        : [],
    [find, text, navigate],
  )
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const hits = [
    ...legs,
    ...fixed.filter((h) => words.every((w) => `${h.kind} ${h.text} ${h.more}`.toLowerCase().includes(w))),
  ].slice(0, 40)
  return (
    <Autocomplete
      open
      options={hits}
      filterOptions={(x) => x}
      getOptionLabel={(h) => h.text}
      getOptionKey={(h) => `${h.kind} ${h.text} ${h.more}`}
      autoHighlight
      inputValue={text}
      onInputChange={(_, value, reason) => reason === 'input' && setText(value)}
      onChange={(_, hit) => {
        if (!hit) return
        close()
        hit.go()
      }}
      onClose={(_, reason) => reason === 'escape' && close()}
      noOptionsText="Nothing of that name"
      slotProps={{ popper: { disablePortal: true }, paper: { sx: { maxHeight: 420 } } }}
      sx={{ m: 2 }}
      renderOption={({ key, ...props }, hit) => (
        <li key={key} {...props}>
          <span className="faint" style={{ width: 76 }}>
            {hit.kind}{' '}
          </span>
          <span style={{ flex: 1 }}>{hit.text}</span>
          <span className="faint">{hit.more}</span>
        </li>
      )}
      renderInput={(params) => (
        <TextField {...params} autoFocus label="Find a leg, part, net, need, finding, stage or edit" />
      )}
    />
  )
}

export default SearchField
