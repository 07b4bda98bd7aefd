import { anatomyOf, standaloneEdit } from '@root-board/core/chip'
import type { Board } from '@root-board/core/parts'
import { formatQuantity, fullRange } from '@root-board/core/quantity'
import { Body, Cell, Columns, Row, Table, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { PreviewedFix } from '../../shared/PreviewedFix'

const verdicts = { copy: 'copy it', 'leave out': 'leave it out', choose: 'choose anew' }

/** The blocks of a board: what each does and draws, and what a board of one's own does with it. */
export const AnatomyPart = ({ board }: { board: Board }) => {
  const { library, design, analysis } = useStage()
  const anatomy = anatomyOf(board, library)
  const standalone = standaloneEdit(design, anatomy, analysis.pins.assignment)
  const amps = (r: Parameters<typeof fullRange>[0]) => {
    const value = fullRange(r).max
    return value === 0 ? 'nothing' : formatQuantity(value, 'A', 2)
  }
  return (
    <section aria-labelledby="anatomy">
      <h2 id="anatomy">What {board.name} is made of</h2>
      <div className="scroll-x">
        <Table>
          <Columns
            of={['Block', 'What it does', right('Asleep'), right('Awake'), 'Legs', 'On a board of your own']}
          />
          <Body>
            {board.blocks.map((b) => (
              <Row key={b.id}>
                <Cell component="th" scope="row">
                  {b.name}
                </Cell>
                <Cell>{b.does}</Cell>
                <Cell align="right" className="mono">
                  {amps(b.asleep)}
                </Cell>
                <Cell align="right" className="mono">
                  {amps(b.awake)}
                </Cell>
                <Cell className="mono">{b.pins?.join(', ') ?? ''}</Cell>
                <Cell>
                  <b>{verdicts[b.standalone]}</b>
                  <span className="faint">: {b.why}</span>
                </Cell>
              </Row>
            ))}
            <Row>
              <Cell component="th" scope="row">
                Together
              </Cell>
              <Cell>
                {anatomy.chipAsleep && (
                  <>
                    {anatomy.bare!.name} alone sleeps at <Num worked={anatomy.chipAsleep} />
                  </>
                )}
              </Cell>
              <Cell align="right" className="mono">
                <Num worked={anatomy.asleep} />
              </Cell>
              <Cell align="right" className="mono">
                <Num worked={anatomy.awake} />
              </Cell>
              <Cell />
              <Cell>
                asleep, what is copied: <Num worked={anatomy.standaloneAsleep} />
              </Cell>
            </Row>
          </Body>
        </Table>
      </div>
      {(board.links ?? []).length > 0 && (
        <>
          <h3>Links on the board</h3>
          <ul>
            {board.links!.map((l) => (
              <li key={l.id}>
                <b>{l.name}</b> ({l.kind}):{' '}
                {l.positions
                  .map((p) => `${p.id}${p.id === l.factory ? ', as it leaves the factory' : ''}: ${p.effect}`)
                  .join('; ')}
              </li>
            ))}
          </ul>
        </>
      )}
      {anatomy.hidden.length > 0 && (
        <p className="faint">
          No header brings out <span className="mono">{anatomy.hidden.join(', ')}</span>.
        </p>
      )}
      {standalone && (
        <PreviewedFix
          ask={`Make it standalone: build around the bare ${anatomy.bare!.name}`}
          fix={{ label: `Build around the bare ${anatomy.bare!.name}`, edits: [standalone] }}
        />
      )}
    </section>
  )
}
