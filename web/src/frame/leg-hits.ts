// Legs by any name. Loaded when the search box is first opened: the names need the pins' part of the core.

import type { Analysis } from '@root-board/core/analysis'
import type { Library } from '@root-board/core/parts'
import { findPins, passport, pinNames, placeName, wireOn } from '@root-board/core/legs'

export interface LegHit {
  pin: string
  text: string
  more: string
}

/** A finder for one analysis, so that names are gathered once and not at each key. */
export const legFinder = (analysis: Analysis, library: Library): ((text: string) => LegHit[]) => {
  const { chip } = analysis.chip
  if (!chip) return () => []
  const wires = analysis.pins.plan?.wires ?? []
  const names = pinNames(chip, library, analysis.needs.instances, wires)
  return (text) =>
    findPins(chip, text, names)
      .slice(0, 12)
      .map((pin) => ({
        pin: pin.id,
        text: `${placeName(pin)} · ${passport(chip, pin).names.join(' · ')}`,
        more: wireOn(wires, pin)?.signal.name ?? (pin.type === 'io' ? 'free' : pin.type),
      }))
}
