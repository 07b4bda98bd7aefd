// The blocks of the support circuit, in the order in which their parts are numbered.

import type { SupportPart } from '../../circuit'
import type { BlockContext, SupportBlock } from './block'
import { bulk } from './bulk'
import { clock } from './clock'
import { decoupling } from './decoupling'
import { entry } from './entry'
import { lamp } from './lamp'
import { polarity } from './polarity'
import { programmingHeader, socket } from './programming'
import { regulator } from './regulator'
import { reset } from './reset'

const blocks: SupportBlock[] = [
  entry,
  polarity,
  regulator,
  bulk,
  lamp,
  socket,
  decoupling,
  reset,
  clock,
  programmingHeader,
]

export const supportCircuit = (context: BlockContext): SupportPart[] =>
  // A board brings its own support circuit.
  context.chip.board ? [] : blocks.flatMap((block) => block(context))
