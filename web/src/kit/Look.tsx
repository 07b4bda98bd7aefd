// What the whole page has before any component: colours and faces as variables, the paper, headings, words of a meaning.

import { GlobalStyles } from '@mui/material'
import { unseen } from './layout'
import { colours, fonts, type Mode } from './theme'

const variables = (mode: Mode) =>
  Object.fromEntries(Object.entries(colours[mode]).map(([name, value]) => [`--${name}`, value]))

const severity = { stops: 'clay', risks: 'ochre', notes: 'slate', settled: 'green', faint: 'faint' }

const look = {
  ':root': { ...variables('light'), '--mono': fonts.mono },
  ":root[data-mode='dark']": variables('dark'),
  '*': { boxSizing: 'border-box' },
  'html, body, #page': { height: '100%', margin: 0 },
  body: {
    background: 'var(--paper)',
    color: 'var(--ink)',
    fontFamily: fonts.text,
    fontSize: 14,
    lineHeight: 1.4,
  },
  'h1, h2, h3': { margin: 0, fontWeight: 650, lineHeight: 1.25 },
  h1: { fontSize: 20 },
  h2: { fontSize: 16 },
  h3: { fontSize: 14 },
  a: { color: 'var(--green)' },
  ':focus-visible': { outline: '2px solid var(--slate)', outlineOffset: 2 },
  '.mono': { fontFamily: 'var(--mono)', fontVariantNumeric: 'tabular-nums slashed-zero' },
  ...Object.fromEntries(
    Object.entries(severity).map(([name, colour]) => [`.${name}`, { color: `var(--${colour})` }]),
  ),
  '.visually-hidden': unseen,
  /* Set lighter than its number. */
  '.unit': { color: 'var(--faint)', fontWeight: 300, fontSize: '0.95em' },
  '.one-line': { whiteSpace: 'nowrap' },
  kbd: {
    font: '12px var(--mono)',
    border: '1px solid var(--line)',
    borderRadius: 3,
    padding: '0 4px',
    marginLeft: 3,
    whiteSpace: 'nowrap',
  },
  '.scroll-x': { position: 'relative', overflowX: 'auto' },
  /* There the head of a table stays in sight. */
  '.scroll-narrow': { '@media (max-width: 999px)': { position: 'relative', overflowX: 'auto' } },
  /* What goes into a place that is empty. */
  '.empty': {
    color: 'var(--faint)',
    border: '1px dashed var(--line)',
    padding: 14,
    margin: '8px 0',
  },
  '@media (prefers-reduced-motion: reduce)': {
    '*': { transition: 'none !important', animation: 'none !important' },
  },
  /* Above the gauges and the foot of the library's pages. */
  '.notistack-SnackbarContainer': { marginBottom: 52 },
} as const

export const Look = () => <GlobalStyles styles={look} />
