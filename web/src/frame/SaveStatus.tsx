// How saving stands, in words, wherever a project is open.

import { type SaveState, useProject } from '../store/project'

const saveWords = (save: SaveState): string => {
  switch (save.kind) {
    case 'saved':
      return 'Saved'
    case 'waiting':
    case 'saving':
      return 'Saving …'
    case 'away':
      return `${save.why ?? 'Server away'}: ${
        save.kept
          ? 'kept in this browser'
          : 'nor kept in this browser, which has no room for it. Download the project before you leave'
      }`
    case 'conflict':
      return 'Changed elsewhere: choose below'
    case 'refused':
      return `Not saved: ${save.why}`
  }
}
export const SaveStatus = () => {
  const save = useProject((s) => s.save)
  const words = saveWords(save)
  const isTrouble = save.kind === 'away' || save.kind === 'conflict' || save.kind === 'refused'
  return (
    <span role="status" className={isTrouble ? 'risks' : 'faint'} title={words}>
      {words}
    </span>
  )
}
