// How the machine goes to sleep and comes back: what ends the sleep, what is still known then, and what the program does
// before, in turn.

import { listWords, timeWords } from '@root-board/core/quantity'
import { modesOf, sleepOf, wakingsOf } from '@root-board/core/states'
import { styled } from '@mui/material'
import { useStage } from '../../shared/analysis'

export const SleepSteps = () => {
  const { analysis } = useStage()
  const sleep = sleepOf(analysis)
  if (!sleep) return null
  const { state, mode } = sleep
  const wakings = wakingsOf(analysis)
  const timed = wakings.filter((w) => w.by === 'clock' && w.can === 'yes')
  const woken = wakings.filter((w) => w.by === 'device' && w.can === 'yes')
  const seen = new Set<string>()
  const resting = analysis.needs.instances.flatMap(({ need, part }) => {
    const said = modesOf(part).find((m) => m.id === state.modes?.[need.id])
    if (!said || seen.has(need.id)) return []
    seen.add(need.id)
    return [`${need.name} ${said.name}`]
  })
  const steps = [
    ...(resting.length > 0 ? [`Put the devices as they are to be: ${listWords(resting)}.`] : []),
    ...(timed.length > 0
      ? [
          `Set its clock to what comes first: ${listWords(
            timed.map(({ state: { name, every, perDay } }) =>
              every === undefined ? `${name}, ${perDay} times a day` : `${name}, every ${timeWords(every)}`,
            ),
          )}.`,
        ]
      : []),
    ...woken.map((w) => `Let ${w.device} wake it by ${listWords(w.pins)}, for ${w.state.name}.`),
    `Go to “${mode.name}”.`,
    mode.retains
      ? `Awake again, ${mode.retains} of its memory are as they were; ask what woke it.`
      : 'Awake again, ask what woke it. What memory is kept is not in its file: read it in the sheet.',
  ]
  return (
    <Steps aria-labelledby="sleep-steps">
      <h3 id="sleep-steps">Before each sleep the program’s calls, in turn</h3>
      <ol>
        {steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {mode.wakes && (
        <p className="faint">
          What ends “{mode.name}”, by its sheet: {listWords(mode.wakes)}.
        </p>
      )}
    </Steps>
  )
}

const Steps = styled('section')({
  marginTop: 12,
  '& ol': { margin: '4px 0', paddingLeft: 24 },
  '& p': { margin: '4px 0 10px' },
})
