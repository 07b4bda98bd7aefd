// How the text was read, how much of it was not understood, and where: one word after the other.

import { Button, styled } from '@mui/material'
import type { Answers, Place, Understood } from '@root-board/core/intake'
import { useState } from 'react'

interface Props {
  table: Understood
  answers: Answers
  answer: (answers: Answers) => void
  show: (places: Place[]) => void
}

/** Functions that were taken out of a leg by hand, and whose family still stands at others: a rule may take all. */
const familiesTakenOut = (table: Understood, answers: Answers): { family: string; count: number }[] => {
  const counts = new Map<string, number>()
  for (const leg of table.legs)
    for (const f of leg.functions) counts.set(f.family, (counts.get(f.family) ?? 0) + 1)
  const out = new Set(
    table.legs.flatMap((leg) => {
      const told = answers[`set:${leg.key}:functions`]
      return told === undefined ? [] : (leg.takenOut ?? [])
    }),
  )
  return [...out].flatMap((family) => {
    const count = counts.get(family) ?? 0
    return count > 0 ? [{ family, count }] : []
  })
}

export const NotUnderstood = ({ table, answers, answer, show }: Props) => {
  const [at, setAt] = useState(-1)
  const { open } = table.account
  const unsure = table.legs.filter((l) => (l.unsure ?? []).length > 0)
  const next = () => {
    const n = (at + 1) % open.length
    setAt(n)
    show([open[n]!])
  }
  const [reading] = table.readings
  const rules = familiesTakenOut(table, answers)
  return (
    <Box aria-label="What was not understood">
      <p>
        {reading && <>Read as {reading.words}. </>}
        {open.length === 0 ? (
          <span className="settled">Every word of the text is accounted for.</span>
        ) : (
          <>
            <span className="risks">
              {open.length === 1 ? 'One word is' : `${open.length} words are`} not understood.
            </span>{' '}
            <Button onClick={next}>
              {at >= 0 && at < open.length
                ? `Show the next after “${open[at]!.text}”`
                : open.length === 1
                  ? 'Show it'
                  : 'Show them, one by one'}
            </Button>
          </>
        )}
        {unsure.length > 0 && (
          <span className="risks">
            {' '}
            {unsure.length === 1
              ? 'One leg should be looked at.'
              : `${unsure.length} legs should be looked at.`}
          </span>
        )}
      </p>
      {rules.map(({ family, count }) => (
        <p key={family}>
          You took {family} out of a leg; it stands at {count} more.{' '}
          <Button onClick={() => answer({ ...answers, [`kind:${family}`]: 'none' })}>
            Leave {family} out everywhere
          </Button>
        </p>
      ))}
    </Box>
  )
}

const Box = styled('section')({ '& p': { margin: '0 0 4px' } })
