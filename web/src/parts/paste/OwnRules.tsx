// The builder’s own rules: what earlier sheets have taught, each of which can be taken back.

import { Button, styled } from '@mui/material'
import { ruleWords } from '@root-board/core/intake'
import { useState } from 'react'
import { FileButton } from '../../kit/FileButton'
import { Fold } from '../../kit/Fold'
import { download } from '../../shared/words'
import { readRules, rulesFile, useRules } from './own-rules'

interface Props {
  /** Rules that this text has families and words of, and nobody has answered otherwise here. */
  used: string[]
  /** Takes the question up here, whatever the rule says. */
  askAgain: (id: string) => void
}

const titleOf = (all: number, used: number) => {
  if (all === 0) return 'No rules from earlier sheets'
  const rules = all === 1 ? 'One rule' : `${all} rules`
  const here = used === 0 ? 'none' : used === all ? (all === 1 ? '' : 'all') : String(used)
  return `${rules} from earlier sheets, ${here ? `${here} used here` : 'used here'}`
}

export const OwnRules = ({ used, askAgain }: Props) => {
  const { rules, keep, takeBack } = useRules()
  const [open, setOpen] = useState(false)
  const [fault, setFault] = useState<string>()
  const all = Object.entries(rules).sort(([a], [b]) => a.localeCompare(b))
  const bring = async (file: File) => {
    const read = readRules(await file.text())
    if ('fault' in read) setFault(`${file.name} ${read.fault}. Nothing was brought.`)
    else {
      setFault(undefined)
      keep(read.rules)
    }
  }
  return (
    <Fold
      title={titleOf(all.length, all.filter(([id]) => used.includes(id)).length)}
      open={open}
      onOpen={setOpen}
    >
      {all.length === 0 && (
        <p className="faint">What you say of a family or a word is kept once its part is in the library.</p>
      )}
      <List>
        {all.map(([id, value]) => (
          <li key={id}>
            {ruleWords(id, value)}{' '}
            {used.includes(id) && (
              <>
                <span className="settled">used here</span>{' '}
                <Button aria-label={`Ask again here: ${ruleWords(id, value)}`} onClick={() => askAgain(id)}>
                  Ask again here
                </Button>{' '}
              </>
            )}
            <Button aria-label={`Take back: ${ruleWords(id, value)}`} onClick={() => takeBack(id)}>
              Take back
            </Button>
          </li>
        ))}
      </List>
      <p>
        {all.length > 0 && (
          <Button onClick={() => download('intake-rules.json', rulesFile(rules), 'application/json')}>
            Take them with you
          </Button>
        )}{' '}
        <FileButton accept=".json" label="A file of rules" onFile={(file) => void bring(file)}>
          Bring rules from a file
        </FileButton>
      </p>
      {fault && (
        <p className="stops" role="alert">
          {fault}
        </p>
      )}
    </Fold>
  )
}

const List = styled('ul')({ listStyle: 'none', margin: 0, padding: 0, '& li': { margin: '2px 0' } })
