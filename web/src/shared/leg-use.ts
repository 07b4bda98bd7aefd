import type { Analysis } from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import { attributeOf, wireOn } from '@root-board/core/legs'
import type { ChipPin } from '@root-board/core/parts'

const typeWords: Partial<Record<ChipPin['type'], string>> = {
  supply: 'supply',
  ground: 'ground',
  reference: 'reference',
  radio: 'antenna',
  none: 'not connected',
}

/** What a leg is used for, in words: its signal, what it must have, or nothing. */
export const wordsOfLeg = (
  { pins, clock }: Analysis,
  { pins: { excluded } }: Design,
  pin: ChipPin,
): string => {
  const wire = wireOn(pins.plan?.wires ?? [], pin)
  if (wire) return wire.signal.name
  if (excluded.includes(pin.id)) return 'kept free'
  if (pin.labels && pin.type === 'none') return 'no signal'
  const always = typeWords[pin.type]
  if (always) return always
  if (!pins.taken[pin.id]) return ''
  return attributeOf(pin, 'reset') ? 'reset' : (clock.source?.kind ?? 'clock')
}
