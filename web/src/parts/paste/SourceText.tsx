// The pasted text, line by line, each with what it was taken for. What belongs to the chosen leg or fact is underlined;
// choosing a line shows what came of it.

import { styled } from '@mui/material'
import type { Place } from '@root-board/core/intake'
import { useEffect, useRef } from 'react'
import { Flat } from '../../kit/Flat'

interface Props {
  text: string
  kinds: Record<number, string>
  /** Places of what is chosen on the other side. */
  marked: Place[]
  /** Words that were not understood. */
  open: Place[]
  choose: (line: number) => void
}

const words: Record<string, string> = {
  leg: 'leg',
  joined: '└ goes on',
  heading: 'heading',
  page: 'of the page',
  section: 'title',
  footnote: 'footnote',
  blank: '',
  fact: 'fact',
  unknown: 'open',
  open: 'not clear',
  skipped: 'left out',
}

const most = 1500

interface Marked extends Place {
  as: 'mark' | 'open'
}
const Line = ({ text, places }: { text: string; places: Marked[] }) => {
  const sorted = [...places].sort((a, b) => a.from - b.from || (a.as === 'mark' ? -1 : 1))
  const pieces: React.ReactNode[] = []
  let at = 0
  sorted.forEach((p, i) => {
    if (p.from < at) return
    const inside = text.slice(p.from, p.to)
    pieces.push(
      text.slice(at, p.from),
      p.as === 'mark' ? (
        <mark key={i}>{inside}</mark>
      ) : (
        <span key={i} className="word-open" title="not understood">
          {inside}
        </span>
      ),
    )
    at = p.to
  })
  return (
    <>
      {pieces}
      {text.slice(at)}
    </>
  )
}

export const SourceText = ({ text, kinds, marked, open, choose }: Props) => {
  const lines = text.replace(/\r\n?/g, '\n').split('\n')
  const openAt = new Map<number, Marked[]>()
  for (const p of open) openAt.set(p.line, [...(openAt.get(p.line) ?? []), { ...p, as: 'open' }])
  const first = useRef<HTMLLIElement>(null)
  const firstLine = marked[0]?.line
  useEffect(() => {
    first.current?.scrollIntoView?.({ block: 'nearest' })
  }, [firstLine])
  return (
    <Lines className="source-text mono" aria-label="What was pasted" tabIndex={0}>
      {lines.slice(0, most).map((line, i) => {
        const number = i + 1
        const places = marked.filter((p) => p.line === number).map((p): Marked => ({ ...p, as: 'mark' }))
        const kind = kinds[number] ?? 'blank'
        return (
          <li
            key={number}
            ref={number === firstLine ? first : undefined}
            className={`${kind} ${places.length > 0 ? 'here' : ''}`}
          >
            <Flat tabIndex={-1} onClick={() => choose(number)}>
              <span className="line-number faint">{number}</span>
              <span className="line-kind">{words[kind] ?? kind}</span>
              <span className="line-text">
                <Line text={line} places={[...places, ...(openAt.get(number) ?? [])]} />
              </span>
            </Flat>
          </li>
        )
      })}
      {lines.length > most && <li className="faint">and {lines.length - most} more lines</li>}
    </Lines>
  )
}

const Lines = styled('ol')({
  listStyle: 'none',
  flex: 1,
  margin: 0,
  padding: 0,
  overflow: 'auto',
  fontSize: 12.5,
  background: 'var(--sheet)',
  border: '1px solid var(--line)',
  '& li': { borderLeft: '3px solid transparent' },
  '& li.here': { borderLeftColor: 'var(--ink)', background: 'var(--shade)' },
  '& button': { display: 'grid', gridTemplateColumns: '40px 82px minmax(0, max-content)', width: '100%' },
  '& .line-number': { textAlign: 'right', paddingRight: 8 },
  '& .line-kind': {
    color: 'var(--faint)',
    fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif",
    fontSize: 12,
  },
  '& .line-text': { whiteSpace: 'pre', tabSize: 6 },
  '& .page .line-text, & .footnote .line-text, & .section .line-text, & .heading .line-text': {
    color: 'var(--faint)',
  },
  '& .unknown .line-kind': { color: 'var(--ochre)', fontWeight: 650 },
  '& .word-open': {
    color: 'var(--ochre)',
    textDecoration: 'underline dotted 2px',
    textUnderlineOffset: 3,
  },
  '& .open .line-kind': { color: 'var(--ochre)', fontWeight: 650 },
  '& mark': {
    background: 'none',
    color: 'inherit',
    fontWeight: 700,
    textDecoration: 'underline 2px',
    textUnderlineOffset: 3,
  },
})
