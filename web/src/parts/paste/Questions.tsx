// What is not clear yet: the question that settles most comes first, and an answer holds for the rest of the table.

import type { Answers, Place, Question } from '@root-board/core/intake'
import { Button } from '@mui/material'
import { useState } from 'react'

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
        <select
          className="plain"
          aria-label={question.text}
          value={choice}
          onChange={(e) => setChoice(e.target.value)}
        >
          {question.choices.map((c) => (
            <option key={c.id} value={c.id}>
              {c.label}
              {c.id === question.guess ? ' (taken so far)' : ''}
            </option>
          ))}
        </select>
        {question.free && (
          <input
            className="plain"
            aria-label={`or ${question.free}`}
            placeholder={`or ${question.free}`}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
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
    <section aria-label="Questions" className="questions">
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
    </section>
  )
}
