// The bar above every page of the library.

import { Breadcrumbs, Button } from '@mui/material'
import { Link } from 'react-router'
import { useMode } from '../kit/mode'

export const PartsBar = ({ title }: { title: string }) => {
  const { mode, toggle } = useMode()
  return (
    <header className="parts-bar">
      <Breadcrumbs aria-label="Way here" separator="›">
        <Link to="/">Projects</Link>
        {title !== 'Parts' && <Link to="/parts">Parts</Link>}
        <h1>{title}</h1>
      </Breadcrumbs>
      <span className="spacer" />
      <Button onClick={toggle}>{mode === 'dark' ? 'Daylight' : 'Lamp light'}</Button>
    </header>
  )
}
