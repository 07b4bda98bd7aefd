// What a source can do to hands that work at its wires.

import { sourceCautions } from '@root-board/core/blocks'
import type { Source } from '@root-board/core/parts'
import { Caution } from '../../kit/Caution'

export const SourceCautions = ({ source }: { source: Source | undefined }) =>
  sourceCautions(source)
    .filter((c) => c === 'lithium' || c === 'short')
    .map((c) => <Caution key={c} name={c} />)
