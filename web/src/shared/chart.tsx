// What all charts have: grid, axes, the usual line, the band around it, words below. A page that draws none loads none of it.

import { styled, useTheme } from '@mui/material'

export const useChartLook = () => {
  const { palette } = useTheme()
  const label = { fill: palette.text.secondary, fontSize: 12 }
  return {
    palette,
    label,
    grid: { stroke: palette.divider, strokeDasharray: '2 4' },
    axis: { tick: label, stroke: palette.text.secondary },
    usual: {
      stroke: palette.text.primary,
      strokeWidth: 1.6,
      dot: { r: 2.5, fill: palette.text.primary },
      isAnimationActive: false,
    },
    band: { stroke: 'none', fill: palette.info.main, fillOpacity: 0.16, isAnimationActive: false },
  } as const
}

export const Figure = styled('figure')({
  margin: '6px 0 0',
  maxWidth: 760,
  '& figcaption': { fontSize: 12.5 },
})
