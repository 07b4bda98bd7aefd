// What is not clear yet: the question that settles most comes first, and an answer holds for the rest of the table.

import type { Answers, Place, Question } from '@root-board/core/intake'
import { Button, styled } from '@mui/material'
import { useState } from 'react'
import { Choice, TextInput } from '../../kit/inputs'

interface Props {
  questions: Question[]
  answers: Answers
  answer: (answers: Answers) => void
  show: (places: Place[]) => void
}

const One = ({
  question,
  answer,
  show,
  rest,
}: Omit<Props, 'questions' | 'answers' | 'answer'> & {
  question: Question
  answer: (value: string) => void
  rest: number
}) => {
  const [choice, setChoice] = useState(question.guess ?? question.choices[0]?.id ?? '')
  const [typed, setTyped] = useState('')
  return (
    <form
      className="question"
      aria-label="Question"
      onSubmit={(e) => {
        e.preventDefault()
        answer(typed.trim() || choice)
      }}
      onFocus={() => show(question.places)}
    >
      <p>
        <b>{question.text}</b>
        {question.why && <span className="faint"> {question.why}</span>}
      </p>
      <div className="answers">
        <Choice
          label={question.text}
          value={choice}
          options={question.choices.map((c) => ({
            value: c.id,
            label: c.id === question.guess ? `${c.label} (taken so far)` : c.label,
          }))}
          onChange={setChoice}
        />
        {question.free && (
          <TextInput
            label={`or ${question.free}`}
            placeholder={`or ${question.free}`}
            value={typed}
            onChange={setTyped}
          />
        )}
        <Button type="submit" variant="contained" color="primary">
          So it is
        </Button>
        <span className="faint">
          {Math.ceil(question.value) === 1
            ? 'settles one place'
            : `settles ${Math.ceil(question.value)} places`}
          {rest > 0 && `; ${rest} more question${rest > 1 ? 's' : ''} after it`}
        </span>
      </div>
    </form>
  )
}

export const Questions = ({ questions, answers, answer, show }: Props) => {
  const [first] = questions
  const given = Object.keys(answers).length
  return (
    <Asked aria-label="Questions" className="questions">
      {first ? (
        <One
          key={first.id}
          question={first}
          rest={questions.length - 1}
          answer={(value) => answer({ ...answers, [first.id]: value })}
          show={show}
        />
      ) : (
        <p className="settled">Nothing is left to ask.</p>
      )}
      {given > 0 && (
        <Button onClick={() => answer(Object.fromEntries(Object.entries(answers).slice(0, -1)))}>
          Take the last answer back
        </Button>
      )}
    </Asked>
  )
}

const Asked = styled('section')({
  borderBottom: '1px solid var(--line)',
  padding: '6px 0',
  '& p': { margin: '2px 0 4px' },
  '& .answers': { display: 'flex', flexWrap: 'wrap', gap: 8, alignItems: 'center' },
})
