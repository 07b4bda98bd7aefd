// The bar above every page of the library.

import { Breadcrumbs, Button, styled } from '@mui/material'
import { Link } from 'react-router'
import { useMode } from '../kit/mode'
import { Spacer } from '../kit/layout'

export const PartsBar = ({ title }: { title: string }) => {
  const { mode, toggle } = useMode()
  return (
    <Bar>
      <Breadcrumbs aria-label="Way here" separator="›">
        <Link to="/">Projects</Link>
        {title !== 'Parts' && <Link to="/parts">Parts</Link>}
        <h1>{title}</h1>
      </Breadcrumbs>
      <Spacer />
      <Button onClick={toggle}>{mode === 'dark' ? 'Daylight' : 'Lamp light'}</Button>
    </Bar>
  )
}

const Bar = styled('header')({
  display: 'flex',
  alignItems: 'baseline',
  gap: 16,
  padding: '8px 20px',
  borderBottom: '1.5px solid var(--ink)',
  '& h1': { color: 'var(--ink)' },
})
