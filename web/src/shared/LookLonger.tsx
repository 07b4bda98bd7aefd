// Looking longer for a plan: started by the builder, with what has been found so far and a way to end it.

import { Button } from '@mui/material'
import { useStage } from './analysis'

export const LookLonger = () => {
  const { looking, lookLonger, enough } = useStage()
  if (!looking)
    return (
      <Button variant="outlined" onClick={lookLonger}>
        Look longer, up to a minute
      </Button>
    )
  return (
    <span role="status" className="looking">
      Looking: {looking.best === undefined ? 'no plan yet' : `best so far ${looking.best} points`}
      {looking.bound > 0 && `; none costs less than ${looking.bound}`}.{' '}
      <Button variant="outlined" onClick={enough}>
        Enough
      </Button>
    </span>
  )
}
