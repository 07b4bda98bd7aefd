import { wireOn } from '@root-board/core/legs'
import type { ChipPin } from '@root-board/core/parts'
import { useStage } from '../shared/analysis'
import { wordsOfLeg } from '../shared/leg-use'

/** What a leg is used for, on paper: what can’t work there says so, since no colour does. */
export const useLegWords = () => {
  const { analysis, design } = useStage()
  return (pin: ChipPin): string => {
    const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
    return `${wire?.impossible ? 'CAN’T WORK: ' : ''}${wordsOfLeg(analysis, design, pin)}`
  }
}
