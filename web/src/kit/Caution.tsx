import { type Caution as CautionName, cautionWords } from '@root-board/core/blocks'

export const Caution = ({ name }: { name: CautionName }) => (
  <p className="caution">
    <b>Caution.</b> {cautionWords[name]}
  </p>
)
