// The steps of a first board: what to do on each stage, and how one sees that it is done.

import type { Analysis } from '@root-board/core/analysis'
import type { StageName } from '@root-board/core/design'
import { stages } from '../frame/stages'

export interface Step {
  stage: StageName
  title: string
  /** What to do. */
  say: string
  /** What to look at meanwhile. */
  look: string
  done: (a: Analysis, looked: boolean) => boolean
}

const settled = (stage: StageName) => stages.find((s) => s.name === stage)!.settled
const has = (a: Analysis, kind: string) =>
  a.needs.signals.some((s) => s.ends.some((e) => e.signal.electrical.kind === kind))

/** What no board should be built with. */
export const stopping = (a: Analysis) => a.findings.find((f) => f.severity === 'stops')

export const steps: readonly Step[] = [
  {
    stage: 'needs',
    title: 'a lamp and a button',
    say: 'Write “push button” into “What does it have?” and press Enter; then “green lamp”, and Enter again.',
    look: 'Each device comes with the lines it needs and the current it draws.',
    done: (a) => has(a, 'contact') && has(a, 'led'),
  },
  {
    stage: 'chip',
    title: 'a chip that can do it',
    say: 'Take one of those that fit; through holes are the easiest to solder.',
    look: 'Every chip and board of the library was tried with your list; where one does not fit, the reason stands beside it.',
    done: settled('chip'),
  },
  {
    stage: 'pins',
    title: 'a leg for each line',
    say: 'Choose the lamp’s leg in the drawing, then “Lock … here” below it, so that it stays.',
    look: 'Every line has the leg on which it takes least from the others; the lamp’s current and its resistor are worked out.',
    done: (a) => a.pins.plan?.wires.some((w) => w.locked) ?? false,
  },
  {
    stage: 'power',
    title: 'what feeds it',
    say: 'Choose a source, and a regulator where the chip needs one.',
    look: 'Any number can be opened: what went into it, and where each of those comes from.',
    done: settled('power'),
  },
  {
    stage: 'build',
    title: 'the way to a board',
    say: 'Look through the parts and the steps; what is missing is named with what helps.',
    look: 'After each step something is measured, before the chip is at risk.',
    done: (a, looked) => looked && settled('build')(a) && stopping(a) === undefined,
  },
]

/** The first that is not done; all of them where that is their number. */
export const stepAt = (a: Analysis, looked: boolean): number => {
  const open = steps.findIndex((s) => !s.done(a, looked))
  return open < 0 ? steps.length : open
}
