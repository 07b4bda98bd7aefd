// Light or lamp-lit: the builder's choice, else the system's. Kept in the browser.

import { useEffect } from 'react'
import { create } from 'zustand'
import type { Mode } from './theme'

const kept = localStorage.getItem('mode')
const dark = window.matchMedia('(prefers-color-scheme: dark)')
const system = (): Mode => (dark.matches ? 'dark' : 'light')

const useModeStore = create<{ mode: Mode; toggle: () => void }>((set, get) => ({
  mode: kept === 'dark' || kept === 'light' ? kept : system(),
  toggle: () => {
    const mode = get().mode === 'dark' ? 'light' : 'dark'
    localStorage.setItem('mode', mode)
    set({ mode })
  },
}))

// Who has not chosen is taken along when evening comes.
dark.addEventListener('change', () => {
  if (!localStorage.getItem('mode')) useModeStore.setState({ mode: system() })
})

export const useMode = () => {
  const state = useModeStore()
  useEffect(() => {
    document.documentElement.dataset.mode = state.mode
  }, [state.mode])
  return state
}
