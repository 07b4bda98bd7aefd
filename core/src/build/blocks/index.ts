// The blocks of the support circuit, in the order in which their parts are numbered.

import type { SupportPart } from '../../circuit'
import type { BlockContext, SupportBlock } from './block'
import { bulk } from './bulk'
import { clock } from './clock'
import { decoupling } from './decoupling'
import { entry, feedEntry } from './entry'
import { lamp } from './lamp'
import { polarity } from './polarity'
import { programmingHeader, socket } from './programming'
import { regulator } from './regulator'
import { reset } from './reset'

const blocks: SupportBlock[] = [
  entry,
  polarity,
  regulator,
  feedEntry,
  bulk,
  lamp,
  socket,
  decoupling,
  reset,
  clock,
  programmingHeader,
]

export const supportCircuit = (context: BlockContext): SupportPart[] =>
  // A board brings its own support circuit, but for a feed that goes past it.
  context.chip.board ? feedEntry(context) : blocks.flatMap((block) => block(context))
