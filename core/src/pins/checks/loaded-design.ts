import { type Check, say } from '../../findings'
import { legSaid, attributeOf } from '../../legs'

export const loadedDesign: Check = {
  id: 'pins.loaded-design',
  stage: 'pins',
  looksFor: 'signals on legs that do nothing until programmable logic is loaded with a design',
  rule: 'the chip’s part file: legs of the logic',
  run: ({ chip: { chip }, pins: { plan } }) => {
    const wires = (plan?.wires ?? []).filter((w) => attributeOf(w.pin, 'loaded-design'))
    if (!chip || wires.length === 0) return []
    return [
      {
        id: 'pins.loaded-design',
        severity: 'notes',
        ...say`The design loaded into ${chip.name} must connect ${wires.length} ${wires.length > 1 ? say`legs` : say`leg`}; until then they do nothing.`,
        because: wires.map(
          (w) =>
            say`${legSaid(w.pin)}: ${w.signal.name}${w.unit ? say`, from ${w.unit.name} ${w.line!}` : say`, as plain input or output`} (${chip.sheet}, ${attributeOf(w.pin, 'loaded-design')?.source ?? 'logic'})`,
        ),
        fixes: [],
      },
    ]
  },
}
