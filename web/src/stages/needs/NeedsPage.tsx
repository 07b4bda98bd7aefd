// Needs: what the project must do, within which limits, and what that adds up to.

import { styled } from '@mui/material'
import { useStage } from '../../shared/analysis'
import { AddLine } from './AddLine'
import { DeviceTable } from './DeviceTable'
import { LimitsForm } from './LimitsForm'
import { Sum } from './Sum'

const NeedsPage = () => {
  const { design } = useStage()
  return (
    <Page className="needs">
      <div className="needs-devices">
        <h1>Needs</h1>
        <AddLine />
        {design.needs.devices.length === 0 ? (
          <p className="empty">
            No devices yet. Type what the project has above, the way you would say it: “3 buttons, 1 buzzer,
            relay module, 4-digit display”. Each one brings its signals, its currents and its cautions along.
          </p>
        ) : (
          <DeviceTable />
        )}
      </div>
      <LimitsForm />
      <Sum />
    </Page>
  )
}

export default NeedsPage

const Page = styled('div')({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) 178px',
  gap: '0 22px',
  '& .needs-devices h1': { marginBottom: 8 },
  '@media (max-width: 999px)': {
    gridTemplateColumns: '1fr',
  },
  '@media (max-width: 599px)': {
    gridTemplateColumns: 'minmax(0, 1fr)',
  },
})
