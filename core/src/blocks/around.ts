// The blocks of the support circuit, in the order in which they are fitted and their parts numbered.

import type { SupportPart } from '../circuit'
import type { BlockContext, LoadedContext, StepContext, SupportBlock } from './block'
import { charger } from './charger'
import { clock } from './clock'
import { furtherRails } from './further-rails'
import { lamp } from './lamp'
import { latch } from './latch'
import { place } from './place'
import { programmingHeader } from './programming'
import { reset } from './reset'
import { secondFeed } from './second-feed'
import { type BoardPart, type BuildStep, refsOf, solderWords } from './step'
import { supply } from './supply'

const blocks: readonly SupportBlock[] = [
  supply,
  secondFeed,
  furtherRails,
  charger,
  place,
  lamp,
  reset,
  clock,
  programmingHeader,
  latch,
]
const onBoards = blocks.filter((b) => b.besideBoards)

const blockOf = (name: string) => blocks.find((b) => b.name === name)!

/** What one block puts onto the board. */
export interface Around {
  block: SupportBlock['name']
  parts: readonly SupportPart[]
}

/** What each block asks for before it is known what flows. */
export const blocksAround = (context: BlockContext): Around[] =>
  (context.chip.board ? onBoards : blocks).map(({ name, parts }) => ({
    block: name,
    parts: parts?.(context) ?? [],
  }))

/** And with all that depends on it. */
export const loadedBlocks = (around: readonly Around[], context: LoadedContext): Around[] =>
  around.map(({ block, parts }) => ({
    block,
    parts: [...(blockOf(block).loadedParts?.(context) ?? []), ...parts],
  }))

/** How each is fitted, one after the other; with `last` those that come when all the rest works. */
export const stepsOf = (
  around: readonly Around[],
  placed: readonly BoardPart[],
  context: StepContext,
  last = false,
): BuildStep[] =>
  around.flatMap(({ block, parts }) => {
    const own = placed.filter((p) => p.support?.present && parts.includes(p.support))
    const { step, evenWithoutParts, last: waits = false } = blockOf(block)
    if (waits !== last) return []
    if (own.length === 0 && !evenWithoutParts) return []
    const { then = [], ...said } = step(own, context)
    return [{ ...said, refs: refsOf(own), does: [...solderWords(own), ...then] }]
  })
