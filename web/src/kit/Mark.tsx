// The mark of a severity: a shape of its own, a colour, and a word for those who see neither.

import { type Finding, severities, type Severity } from '@root-board/core/findings'

export const severityWords: Record<Severity, string> = {
  stops: 'stops the work',
  risks: 'a risk',
  notes: 'worth knowing',
}

const shapes: Record<Severity, string> = {
  // a barred gate, a hanging drop, a plain ring
  stops: 'M2 2h12v4h-12z M2 10h12v4h-12z',
  risks: 'M8 1c3 5 5 7 5 9.5a5 4.5 0 0 1-10 0C3 8 5 6 8 1z',
  notes: 'M8 2a6 6 0 1 0 0.01 0z M8 5a3 3 0 1 1-0.01 0z',
}

export const Mark = ({ severity, size = 13 }: { severity: Severity; size?: number }) => (
  <svg
    className={severity}
    width={size}
    height={size}
    viewBox="0 0 16 16"
    role="img"
    aria-label={severityWords[severity]}
  >
    <path d={shapes[severity]} fill="currentColor" fillRule="evenodd" />
  </svg>
)

/** How many there are of each severity, the worst first. */
export const Marks = ({ findings }: { findings: readonly Finding[] }) =>
  severities.map((severity) => {
    const count = findings.filter((f) => f.severity === severity).length
    return (
      count > 0 && (
        <span key={severity} className={`mono ${severity}`} title={`${count}: ${severityWords[severity]}`}>
          <Mark severity={severity} size={11} /> {count}
        </span>
      )
    )
  })
