// The plan: signals on the left, the chip's legs in their physical order on the right. Choosing a signal shows its reach.

import { styled } from '@mui/material'
import type { Wire } from '@root-board/core/legs'
import { useHotkeys } from 'react-hotkeys-hook'
import { useSearchParams } from 'react-router'
import { useStage } from '../../shared/analysis'
import { commandKeys } from '../../shared/keys'
import { QuestionFailed } from '../../shared/use-asked'
import { ChipDrawing } from './ChipDrawing'
import { LegPanel } from './LegPanel'
import { NextPlans } from './NextPlans'
import { SignalList } from './SignalList'
import { useReach } from './use-reach'

export const PlanView = () => {
  const { analysis, design, edit } = useStage()
  const [query, setQuery] = useSearchParams()
  const chip = analysis.chip.chip!
  const { plan, assignment } = analysis.pins
  const signalId = query.get('signal') ?? undefined
  const legId = query.get('leg') ?? undefined
  const wire: Wire | undefined = plan?.wires.find((w) => w.signal.id === signalId)
  const signal = analysis.needs.signals.find((s) => s.id === signalId)
  const pin = chip.pins.find((p) => p.id === legId)
  const { reach, failed } = useReach(signal?.id)
  const choose = (next: { signal?: string | null; leg?: string | null }) =>
    setQuery(
      (q) => {
        for (const [key, value] of Object.entries(next))
          if (value) q.set(key, value)
          else q.delete(key)
        return q
      },
      // At once, so that a key pressed right after a choice acts on it.
      { replace: true, flushSync: true },
    )
  const toggleLock = () => {
    if (!signal || !wire) return
    if (design.pins.locks[signal.id]) edit({ kind: 'unlockSignal', signal: signal.id, name: signal.name })
    else edit({ kind: 'lockSignal', signal: signal.id, name: signal.name, pin: wire.pin.id })
  }
  const moveHere = () => {
    if (signal && pin && pin.id !== assignment[signal.id])
      edit({ kind: 'moveSignal', signal: signal.id, name: signal.name, pin: pin.id, kept: assignment })
  }
  useHotkeys('l', toggleLock, commandKeys, [signal, wire, design])
  useHotkeys('m', moveHere, commandKeys, [signal, pin, design, assignment])
  useHotkeys('escape', () => choose({ signal: null, leg: null }), {}, [setQuery])
  return (
    <Plan>
      {plan?.status === 'proven' && plan.wires.length > 0 && <NextPlans />}
      {failed && <QuestionFailed why={failed} />}
      {(plan?.wirings ?? []).length > 0 && (
        <section className="plan-notes" aria-label="Wirings the plan chose">
          <ul>
            {plan!.wirings.map((w) => (
              <li key={w.need}>
                <b>{w.name}</b> is wired by {w.wiring.name}
                {w.links.length > 0
                  ? `: set ${w.links.map((l) => `${l.link} for “${l.to}”`).join(', and ')}`
                  : ', its links as they leave the factory'}
                .
              </li>
            ))}
          </ul>
        </section>
      )}
      <SignalList chosen={signal?.id} choose={(id) => choose({ signal: id === signal?.id ? null : id })} />
      <ChipDrawing
        chip={chip}
        signal={signal}
        reach={reach}
        chosen={pin?.id}
        choose={(id) => choose({ leg: id })}
      />
      <LegPanel
        chip={chip}
        pin={pin ?? wire?.pin}
        signal={signal}
        wire={wire}
        reach={reach}
        moveHere={moveHere}
        toggleLock={toggleLock}
      />
    </Plan>
  )
}

const Plan = styled('div')({
  display: 'grid',
  gridTemplateColumns: '206px minmax(0, 1fr)',
  gap: '0 14px',
  alignItems: 'start',
  '@media (max-width: 999px)': {
    gridTemplateColumns: '1fr',
  },
  '& > .MuiButton-root': { gridColumn: '1 / -1', justifySelf: 'start', marginBottom: 6 },
  '&:has(.many)': { gridTemplateColumns: '168px minmax(0, 1fr)' },
})
