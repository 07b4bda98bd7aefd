// The bar above every page of the library.

import { Button } from '@mui/material'
import { Link } from 'react-router'
import { useMode } from '../look/mode'

export const PartsBar = ({ title }: { title: string }) => {
  const { mode, toggle } = useMode()
  return (
    <header className="parts-bar">
      <Link to="/">Projects</Link>
      <Link to="/parts">Parts</Link>
      <h1>{title}</h1>
      <span className="spacer" />
      <Button onClick={toggle}>{mode === 'dark' ? 'Daylight' : 'Lamp light'}</Button>
    </header>
  )
}
