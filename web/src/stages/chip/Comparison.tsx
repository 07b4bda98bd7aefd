import { askedOf, compareChips } from '@root-board/core/chip'
import type { Chip } from '@root-board/core/parts'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

/** Two to four carriers, what differs first. */
export const Comparison = ({ chips }: { chips: Chip[] }) => {
  const { analysis, design, library } = useStage()
  const rows = compareChips(chips, askedOf(design, library, analysis.needs))
  const same = rows.filter((r) => !r.differs)
  const names = chips.map((c) => c.name)
  return (
    <section aria-labelledby="compare">
      <h2 id="compare">
        {names.slice(0, -1).join(', ')} and {names.at(-1)}
      </h2>
      <div className="scroll-x">
        <table className="ruled compare">
          <thead>
            <tr>
              <th scope="col">What differs</th>
              {chips.map((c) => (
                <th scope="col" key={c.id}>
                  {c.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows
              .filter((r) => r.differs)
              .map((r) => (
                <tr key={r.fact}>
                  <th scope="row">{r.fact}</th>
                  {r.values.map((value, i) => (
                    <td key={chips[i]!.id}>
                      {r.worked?.[i] ? <Num worked={r.worked[i]} /> : value}
                      {r.marks[i] === 'best' && <span className="settled mark"> ▲ best here</span>}
                      {r.marks[i] === 'short' && <span className="stops mark"> ▼ too little here</span>}
                    </td>
                  ))}
                </tr>
              ))}
          </tbody>
        </table>
      </div>
      {same.length > 0 && (
        <p className="faint">
          The same on all: {same.map((r) => `${r.fact.toLowerCase()} (${r.values[0]})`).join(', ')}.
        </p>
      )}
    </section>
  )
}
