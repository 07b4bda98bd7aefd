import type { Design } from '@root-board/core/design'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { Columns, hidden, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { questions } from '../../worker/client'
import { Num } from '../../shared/Num'

const ask = (design: Design) => questions.regulators(design)

/** Every linear regulator of the library at this input and this load. */
export const Regulators = () => {
  const { edit } = useStage()
  const { answer: ranked, current, failed } = useAsked(ask)
  return (
    <section aria-labelledby="regulators">
      <h2 id="regulators">Regulators for this load</h2>
      {failed && <QuestionFailed why={failed} />}
      {!ranked && !failed && <p className="faint">Trying every regulator at this load …</p>}
      <div className="scroll-x" hidden={!ranked} aria-busy={!current}>
        <table className="ruled">
          <Columns
            of={[
              'Regulator',
              'Does it do?',
              right('Junction'),
              right('Margin'),
              right('Good up to'),
              right('Price'),
              hidden('Choose'),
            ]}
          />
          <tbody>
            {(ranked ?? []).map((r) => (
              <tr
                key={r.regulator.id}
                className={r.chosen ? 'chosen' : undefined}
                aria-current={r.chosen ? 'true' : undefined}
              >
                <td>
                  <b>{r.regulator.name}</b>
                  <br />
                  <span className="faint">
                    {r.regulator.package.name}, {formatQuantity(fullRange(r.regulator.current).max, 'A')}
                  </span>
                </td>
                <td className="verdict">
                  {r.no.length === 0 ? (
                    <span className="settled">yes</span>
                  ) : (
                    <>
                      <span className="stops">no:</span> {r.no.map((n) => n.text).join('; ')}
                    </>
                  )}
                </td>
                <td className="right">
                  <Num worked={r.junction} show="max" />
                </td>
                <td className="right">
                  <Num worked={r.margin} show="min" digits={2} />
                </td>
                <td className="right">
                  {r.loadLimit ? <Num worked={r.loadLimit} digits={2} /> : <span className="faint">—</span>}
                </td>
                <td className="right mono">{euro(r.regulator.price)}</td>
                <td className="right">
                  {r.chosen ? (
                    <span className="settled">chosen</span>
                  ) : (
                    <Button
                      onClick={() =>
                        edit({ kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name })
                      }
                      aria-label={`Choose ${r.regulator.name}`}
                    >
                      Choose
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}
