// The look: a workbench notebook of warm paper and ink, with four colours of one meaning each, in daylight and by lamp.
// Every component takes it from here; drawings take the colours as CSS variables of the same names.

import { createTheme, type Theme } from '@mui/material/styles'

export type Mode = 'light' | 'dark'

export const colours = {
  light: {
    paper: '#f7f2e7',
    sheet: '#fbf8f0',
    shade: '#eee6d4',
    ink: '#27231c',
    faint: '#5f574a',
    line: '#cdc2ac',
    green: '#2b6637',
    clay: '#9c3a1b',
    ochre: '#7a5600',
    slate: '#35567a',
  },
  dark: {
    paper: '#1c1915',
    sheet: '#24201b',
    shade: '#322c25',
    ink: '#eee6d6',
    faint: '#b9ae9b',
    line: '#4b4438',
    green: '#93c897',
    clay: '#f09a7b',
    ochre: '#e0b95f',
    slate: '#a3bfdd',
  },
}
export const fonts = {
  text: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  mono: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace",
}

export const themeFor = (mode: Mode): Theme => {
  const c = colours[mode]
  return createTheme({
    palette: {
      mode,
      primary: { main: c.green },
      error: { main: c.clay },
      warning: { main: c.ochre },
      info: { main: c.slate },
      success: { main: c.green },
      background: { default: c.paper, paper: c.sheet },
      text: { primary: c.ink, secondary: c.faint },
      divider: c.line,
    },
    shape: { borderRadius: 3 },
    typography: { fontFamily: fonts.text, fontSize: 13, button: { textTransform: 'none', fontWeight: 600 } },
    components: {
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        // MUI takes the outline away, since its ripple shows the focus.
        styleOverrides: {
          root: { '&:focus-visible': { outline: '2px solid var(--slate)', outlineOffset: 2 } },
        },
      },
      MuiTab: { styleOverrides: { root: { '&:focus-visible': { outlineOffset: -2 } } } },
      MuiButton: { defaultProps: { size: 'small', variant: 'outlined', color: 'inherit' } },
      MuiTabs: { defaultProps: { variant: 'scrollable', scrollButtons: false } },
      MuiTextField: { defaultProps: { size: 'small', variant: 'outlined' } },
      MuiCheckbox: {
        defaultProps: { size: 'small', color: 'primary' },
        styleOverrides: { root: { padding: 2, color: 'var(--faint)' } },
      },
      MuiFormControlLabel: {
        styleOverrides: {
          root: { marginLeft: -2, marginRight: 0, gap: 2, verticalAlign: 'baseline' },
          label: { font: 'inherit' },
        },
      },
      MuiPaper: { styleOverrides: { root: { backgroundImage: 'none', border: `1px solid ${c.line}` } } },
    },
    transitions: { create: () => 'none' },
  })
}
