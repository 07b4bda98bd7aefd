// For which makers' versions of the devices the plan holds.

import type { Design } from '@root-board/core/design'
import { Button } from '@mui/material'
import { Body, Cell, Columns, Row, Table, hidden } from '../../../kit/Table'
import { useStage } from '../../../shared/analysis'
import { QuestionFailed, useAsked } from '../../../shared/use-asked'
import { Waiting } from '../../../shared/Waiting'
import { questions } from '../../../worker/client'

const ask = (design: Design) => questions.variants(design)

export const Variants = () => {
  const { design, library, edit } = useStage()
  const there = design.needs.devices.some((d) => {
    const part = library.parts[d.part]
    return part?.kind === 'device' && (part.variants?.length ?? 0) > 0
  })
  const { answer: verdicts, failed, again } = useAsked(there ? ask : undefined)
  if (!there) return null
  return (
    <section aria-labelledby="variants">
      <h2 id="variants">Other makers’ versions</h2>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!verdicts && !failed && <Waiting words="Checking every version …" />}
      {verdicts && (
        <Table>
          <Columns of={['Device', 'Version you may meet', 'Does the plan hold?', hidden('Use it')]} />
          <Body>
            {verdicts.map((v) => (
              <Row key={`${v.need} ${v.variant}`}>
                <Cell>{v.name}</Cell>
                <Cell>
                  {v.label}
                  {!v.tried && <span className="faint">, untried</span>}
                </Cell>
                <Cell>
                  {v.undecided && <div className="risks">not looked at to the end</div>}
                  {v.findings.length === 0 && !v.undecided ? (
                    <span className="settled">holds</span>
                  ) : (
                    v.findings.map((f) => (
                      <div key={f.id} className={f.severity}>
                        {f.text}
                      </div>
                    ))
                  )}
                </Cell>
                <Cell align="right">
                  <Button
                    aria-label={`Plan for ${v.name}, ${v.label}`}
                    onClick={() => edit({ kind: 'setVariant', id: v.need, variant: v.variant ?? null })}
                  >
                    Plan for it
                  </Button>
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
      )}
    </section>
  )
}
