import { railOf } from '@root-board/core/supply'
import { type GrowingColumn, GrowingTable } from '../../kit/GrowingTable'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'

/** Who draws how much, at rest and at work; the sums below. */
export const Consumers = () => {
  const { analysis } = useStage()
  const { power } = analysis
  const { supplies } = power
  const from = (id: string) => (id === supplies.own ? '' : `, from the ${railOf(supplies, id).name}`)
  type Consumer = (typeof power.consumers)[number]
  const columns: GrowingColumn<Consumer>[] = [
    {
      id: 'who',
      name: 'Who',
      of: (c) => `${c.name}${c.count > 1 ? ` × ${c.count}` : ''}${from(c.from)}`,
      cell: (c) => (
        <>
          {c.name}
          {c.count > 1 && <span className="faint"> × {c.count}</span>}
          <span className="faint">{from(c.from)}</span>
        </>
      ),
      foot: supplies.converters.some((c) => c.from === supplies.own)
        ? 'All that flows from the rail at once'
        : 'All on the rail at once',
    },
    {
      id: 'rest',
      name: 'Rest',
      unit: 'A',
      of: (c) => c.rest.value.typ,
      cell: (c) => <Num worked={c.rest} digits={2} />,
      right: true,
      foot: <Num worked={power.rest} />,
    },
    {
      id: 'work',
      name: 'Work, typical',
      unit: 'A',
      of: (c) => c.work.value.typ,
      cell: (c) => <Num worked={c.work} />,
      right: true,
      foot: <Num worked={power.work} />,
    },
    {
      id: 'most',
      name: 'Work, least … most',
      unit: 'A',
      of: (c) => c.work.value.max,
      cell: (c) => <Num worked={c.work} show="range" />,
      right: true,
      foot: <Num worked={power.work} show="range" />,
    },
  ]
  return (
    <section aria-labelledby="currents">
      <GrowingTable
        label="Currents"
        tools={<h2 id="currents">Currents</h2>}
        findFrom={30}
        rows={[...power.consumers].sort((a, b) => b.work.value.max - a.work.value.max)}
        columns={columns}
        keyOf={(c) => c.id}
      />
    </section>
  )
}
