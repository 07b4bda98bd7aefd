// Cautions in plain words, shown beside the step they belong to.

import { byHollowPlug, type Source } from '../parts'

export type Caution =
  | 'mains'
  | 'iron'
  | 'reversed'
  | 'two-supplies'
  | 'lithium'
  | 'short'
  | 'heat'
  | 'eyes'
  | 'light'
  | 'motor'
  | 'children'
  | 'joined'
  | 'joined-grounds'
  | 'meter'
  | 'charging'

export const cautionWords: Record<Caution, string> = {
  mains:
    'Mains voltage kills. Let a licensed electrician wire the mains side, in an enclosure, fused and isolated, by your local electrical code. Never open it or work on it plugged in.',
  iron: 'The iron is hot enough to burn and to light things. Stand it in its holder, keep the air moving and don’t breathe the fumes.',
  reversed:
    'Check which contact of the plug is positive with a meter before it goes in: reversed supply destroys parts and makes some of them burst.',
  'two-supplies':
    'Only one supply at a time: unplug the board while a programmer feeds it, or set the programmer not to feed. Two supplies joined drive current into each other.',
  lithium:
    'Never short, puncture or overcharge a lithium cell; use one with its own protection and a charger made for it.',
  short:
    'This battery drives hundreds of amperes into a short: wires glow and metal melts. A fuse right at its plus, covered tools, no rings; charge it where there is air, away from flames.',
  heat: 'A part here gets hot enough to burn fingers. Give it air, and touch it only when it has been off for minutes.',
  eyes: 'Wear eye protection when clipping leads: the ends fly.',
  light:
    'This light can harm eyes, also where it can’t be seen. Never look into it nor point it at anyone, and keep to its label and the local rules for it.',
  motor: 'A motor starts without warning when power returns. Keep fingers and hair away.',
  'joined-grounds':
    'Two supplies feed this project: only their grounds are joined, never their plus. Unplug both before a wire is moved.',
  meter:
    'Set to amperes, a meter is a piece of wire: it goes into the line, never across a supply, where it is a short. Off before it is put in or its range is changed; never on mains, which is work for a licensed electrician.',
  charging:
    'Charge a lithium cell only while somebody is there, on something that doesn’t burn, between 0 and 45 °C, and never one that is swollen, hot, or has been emptied below its lowest voltage.',
  joined:
    'Cells that are joined are of one kind, one make and one charge, and are all changed together: a weak one among them is driven backwards or filled by the others, gets hot, and leaks.',
  children: 'Keep small cells out of children’s reach: swallowed, they cause severe burns.',
}

/** What goes with the source, wherever the power comes in. */
export const sourceCautions = (source: Source | undefined): Caution[] => [
  ...(source && byHollowPlug(source) ? (['reversed'] as const) : []),
  ...(source?.cautions?.includes('mains') ? (['mains'] as const) : []),
  ...(source?.cautions?.includes('lithium') ? (['lithium'] as const) : []),
  ...(source?.cautions?.includes('short') ? (['short'] as const) : []),
  ...(source?.joined ? (['joined'] as const) : []),
  ...(source?.cautions?.includes('children') ? (['children'] as const) : []),
]
