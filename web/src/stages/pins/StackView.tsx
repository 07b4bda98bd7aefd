// The stack: which expansion board uses which position of the header, what else is there, and the links to set.

import { seatsOf } from '@root-board/core/carrier'
import type { Instance, Seat, SignalNeed } from '@root-board/core/needs'
import { linksToSet } from '@root-board/core/planner'
import { useStage } from '../../shared/analysis'

export const StackView = () => {
  const { analysis, design, edit } = useStage()
  const chip = analysis.chip.chip!
  const boards = analysis.needs.instances
    .filter((i) => i.part.expansion)
    .sort((a, b) => Number(a.part.expansion!.top ?? false) - Number(b.part.expansion!.top ?? false))
  const { signals } = analysis.needs
  const wires = analysis.pins.plan?.wires ?? []
  const claims = signals.flatMap((signal) => (signal.at ?? []).map((seat) => ({ signal, seat })))
  if (!chip.board)
    return (
      <p className="empty">
        {boards.map((b) => b.name).join(', ')} must be plugged onto a header, and {chip.name} has none: choose
        a board with a {boards[0]!.part.expansion!.fits} header on the Chip page.
      </p>
    )
  const all = seatsOf(chip.board)
  const places = all.filter((p) => p.pin !== undefined)
  const headers = [...new Set(places.map((p) => p.header))]
  const passed = [...new Set(all.filter((p) => p.pin === undefined).map((p) => p.label))]
  return (
    <div className="stack-view">
      <table className="ruled">
        <thead>
          <tr>
            <th scope="col">{chip.name}</th>
            <th scope="col">Pin</th>
            {boards.map((b, i) => (
              <th scope="col" key={b.id}>
                {b.name}{' '}
                <span className="faint">{i === boards.length - 1 ? 'on top' : `storey ${i + 1}`}</span>
              </th>
            ))}
            <th scope="col">Wired by hand</th>
          </tr>
        </thead>
        {headers.map((header) => (
          <tbody key={header}>
            <tr>
              <th scope="rowgroup" colSpan={boards.length + 3} className="faint">
                {header}
              </th>
            </tr>
            {places
              .filter((p) => p.header === header)
              .map((place) => {
                const here = claims.filter((c) => c.seat.place === place.at)
                const lines = new Set(here.map((c) => c.signal.id))
                const loose = wires.filter(
                  (w) => w.pin.id === place.pin && !w.signal.at && w.pin.places?.[0] === place.at,
                )
                return (
                  <tr key={place.number} className={lines.size > 1 ? 'overlap' : undefined}>
                    <th scope="row" className="mono">
                      {place.label}
                    </th>
                    <td className="mono faint">{place.pin}</td>
                    {boards.map((b) => (
                      <td key={b.id}>
                        <Use board={b} place={place.at} here={here} over={lines.size > 1} />
                      </td>
                    ))}
                    <td>{loose.map((w) => w.signal.name).join(', ')}</td>
                  </tr>
                )
              })}
          </tbody>
        ))}
      </table>
      <p className="faint">Passed on from board to board: {passed.join(', ')}.</p>
      <h2>Links to set</h2>
      <ul>
        {boards
          .filter((b) => b.part.links)
          .map((b) => {
            const chosen = design.needs.devices.find((d) => d.id === b.need.id)!
            const links = linksToSet(b.part, b.wiring)
            return (
              <li key={b.id}>
                <b>{b.name}</b>: {b.wiring.name}.{' '}
                {links.length > 0
                  ? `Set ${links.map((l) => `${l.link}: ${l.to}`).join('; ')}.`
                  : 'Links as they leave the factory.'}{' '}
                {b.part.wirings.length > 1 && (
                  <label>
                    Use{' '}
                    <select
                      className="plain"
                      value={chosen.wiring ?? ''}
                      onChange={(e) =>
                        edit({ kind: 'setWiring', id: b.need.id, wiring: e.target.value || null })
                      }
                    >
                      {b.part.planChooses && <option value="">what the plan chooses</option>}
                      {b.part.wirings.map((w) => (
                        <option key={w.id} value={w.id}>
                          {w.name}
                        </option>
                      ))}
                    </select>
                  </label>
                )}
              </li>
            )
          })}
      </ul>
    </div>
  )
}

/** What a board does with a position: its line and its own name for it, or the name alone where it leaves it be. */
const Use = ({
  board,
  place,
  here,
  over,
}: {
  board: Instance
  place: string
  here: { signal: SignalNeed; seat: Seat }[]
  over: boolean
}) => {
  const own = here.find((c) => c.seat.instance.id === board.id)
  const { expansion } = board.part
  const label = expansion!.positions.find((p) => `${expansion!.fits} ${p.at}` === place)?.label
  if (!own)
    return label ? <span className="mono faint">{label}, not used</span> : <span className="faint">·</span>
  return (
    <span className={over ? 'stops' : undefined}>
      <span className="mono">{own.seat.label}</span> {own.signal.name.replace(`${board.name} `, '')}
      {over && ' — taken twice'}
    </span>
  )
}
