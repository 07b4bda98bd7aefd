// Each line by itself: its levels in both directions, its pull-ups, what its converter or timer makes of it, its byte.

import { styled } from '@mui/material'
import { useStage } from '../../shared/analysis'
import { Bytes } from './lines/Bytes'
import { Drive } from './lines/Drive'
import { Levels } from './lines/Levels'
import { Pulls } from './lines/Pulls'
import { Converters, Pulses } from './lines/Sums'
import { Variants } from './lines/Variants'

export const LinesView = () => {
  const { analysis } = useStage()
  const { plan, levels } = analysis.pins
  if ((plan?.wires ?? []).length === 0)
    return <p className="empty">No lines yet: they come with a plan in which every signal has a leg.</p>
  return (
    <View>
      {levels.length === 0 ? (
        <p className="empty">Levels are known once a source is chosen on the Needs or Power page.</p>
      ) : (
        <Levels />
      )}
      <Pulls />
      <Drive />
      <Converters />
      <Pulses />
      <Bytes />
      <Variants />
    </View>
  )
}

const View = styled('div')({
  '& section': { marginBottom: 16 },
  '& td, & th': { verticalAlign: 'middle' },
  '& p': { margin: '4px 0' },
  '& .pulls svg': { display: 'block' },
  '& .byte': { display: 'flex', flexWrap: 'wrap', gap: '6px 16px', alignItems: 'baseline' },
  '& .byte .bits, & .byte p': { flexBasis: '100%' },
  '& .byte .bits': { width: 'auto' },
  '& .bits td': { textAlign: 'center', padding: '2px 10px' },
  '& .bit': { padding: '2px 8px', border: '1px solid var(--line)' },
  "& .bit[aria-pressed='true']": { borderColor: 'var(--green)', fontWeight: 650 },
  '& td:first-of-type, & .pulls td:nth-child(3), & td.mono, & .levels .with': { whiteSpace: 'nowrap' },
})
