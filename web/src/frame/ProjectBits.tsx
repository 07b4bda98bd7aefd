// What stands at the head of an open project, worked out or not: its name, how saving stands, its file.

import { Button } from '@mui/material'
import { NameInput } from '../kit/NameInput'
import { Notice } from '../kit/layout'
import { download, fileName } from '../shared/words'
import { type SaveState, useProject } from '../store/project'

export const ProjectName = () => {
  const { design, edit } = useProject()
  if (!design) return null
  return (
    <NameInput
      className="project-name"
      label="Project name"
      value={design.name}
      maxLength={120}
      onRename={(name) => edit({ kind: 'renameProject', name })}
    />
  )
}

const saveWords = (save: SaveState): string => {
  switch (save.kind) {
    case 'saved':
      return 'Saved'
    case 'waiting':
    case 'saving':
      return 'Saving …'
    case 'away':
      return save.kept ? `${save.why ?? 'Server away'}: kept in this browser` : 'Not saved: see below'
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

export const ProjectFile = () => {
  const design = useProject((s) => s.design)
  if (!design) return null
  return (
    <Button
      onClick={() =>
        download(fileName(design.name, '.json'), `${JSON.stringify(design, null, 2)}\n`, 'application/json')
      }
      title="The whole project as one file"
    >
      Project file
    </Button>
  )
}

/** What is lost when the page is closed now: too much for a word in the bar. */
export const KeptNowhere = () => {
  const save = useProject((s) => s.save)
  if (save.kind !== 'away' || save.kept) return null
  return (
    <Notice about="clay" role="alert">
      <b>The last changes are kept nowhere but in this page.</b> {save.why ?? 'The server does not answer'},
      and this browser has no room for them or keeps nothing. They are saved as soon as that is over; before
      you close the page until then, take the “Project file” above.
    </Notice>
  )
}
