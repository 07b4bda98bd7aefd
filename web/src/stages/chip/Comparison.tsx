import { compareChips } from '@root-board/core/chip'
import type { Chip } from '@root-board/core/parts'

/** Two chips, what differs first. */
export const Comparison = ({ a, b }: { a: Chip; b: Chip }) => {
  const rows = compareChips(a, b)
  const same = rows.filter((r) => !r.differs)
  return (
    <section aria-labelledby="compare">
      <h2 id="compare">
        {a.name} and {b.name}
      </h2>
      <table className="ruled compare">
        <thead>
          <tr>
            <th scope="col">What differs</th>
            <th scope="col">{a.name}</th>
            <th scope="col">{b.name}</th>
          </tr>
        </thead>
        <tbody>
          {rows
            .filter((r) => r.differs)
            .map((r) => (
              <tr key={r.fact}>
                <th scope="row">{r.fact}</th>
                <td>{r.a}</td>
                <td>{r.b}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {same.length > 0 && (
        <p className="faint">
          The same on both: {same.map((r) => `${r.fact.toLowerCase()} (${r.a})`).join(', ')}.
        </p>
      )}
    </section>
  )
}
