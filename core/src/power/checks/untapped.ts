import { type Check, say } from '../../findings'
import { capital, namesInWords } from '../../quantity'
import { railFor, railOf } from '../../supply'

/** A board without a position for its input keeps what its plug gets to itself. */
export const untapped: Check = {
  id: 'power.untapped',
  stage: 'power',
  looksFor: 'what hangs on the source in front of a board that brings its input out nowhere',
  rule: 'the positions of the board’s header',
  run: ({ chip: { chip }, needs, power: { supplies, source } }) => {
    const { own, fed } = supplies
    const board = chip?.board
    if (!board || !source || fed.source === own || chip.pins.some((p) => p.rail === 'IN')) return []
    const hanging = [
      ...needs.instances.flatMap(({ part, need }) =>
        part.supply && railFor(supplies, need).id === fed.source ? [need.name] : [],
      ),
      ...supplies.converters.flatMap(({ from, to }) =>
        from === fed.source && to !== own ? [`the ${railOf(supplies, to).name}`] : [],
      ),
    ]
    if (hanging.length === 0) return []
    const hang = [...new Set(hanging)]
    const names = namesInWords(hang)
    return [
      {
        id: 'power.untapped',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`${capital(names)} ${hang.length === 1 ? 'hangs' : 'hang'} on the source, and ${board.name} brings what its plug gets out nowhere: the wire VIN begins in the lead of ${source.name}, in front of that plug.`,
        because: [say`${board.sheet}: no position of its header is its input`],
        fixes: [],
      },
    ]
  },
}
