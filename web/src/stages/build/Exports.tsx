// What leaves the program: lists for a spreadsheet, the header for the program, the sheet for the bench.

import { partsTable, pinHeader, wiringTableCells } from '@root-board/core/formats'
import { Button } from '@mui/material'
import { Link } from 'react-router'
import { useStage } from '../../shared/analysis'
import { csvText } from '../../shared/csv'
import { download, fileName } from '../../shared/words'

export const Exports = () => {
  const { analysis, design } = useStage()
  const { build, chip, pins } = analysis
  return (
    <p>
      <Button
        onClick={() =>
          download(fileName(design.name, '-parts.csv'), csvText(partsTable(build.parts)), 'text/csv')
        }
      >
        Parts list, CSV
      </Button>{' '}
      <Button
        onClick={() =>
          download(fileName(design.name, '-wiring.csv'), csvText(wiringTableCells(build.wiring)), 'text/csv')
        }
      >
        Wiring table, CSV
      </Button>{' '}
      {chip.chip && (
        <Button
          onClick={() =>
            download('pins.h', pinHeader(design.name, chip.chip!.name, pins.plan?.wires ?? []), 'text/plain')
          }
        >
          pins.h
        </Button>
      )}{' '}
      <Button component={Link} to="../cards">
        Cards
      </Button>{' '}
      <Button component={Link} to="../sheet">
        Build sheet to print
      </Button>
    </p>
  )
}
