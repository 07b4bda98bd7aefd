// Through a list or a row of buttons that is one stop for the Tab key.

import type { KeyboardEvent } from 'react'

/** For the element around the buttons, each marked `data-item`: forward and back by these keys, to the ends by Home and End. */
const along =
  (forward: string, back: string) =>
  (event: KeyboardEvent<HTMLElement>): void => {
    const by = event.key === forward ? 1 : event.key === back ? -1 : 0
    if (!by && event.key !== 'Home' && event.key !== 'End') return
    const items = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-item]')]
    const at = items.indexOf(document.activeElement as HTMLElement)
    const next =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? items.length - 1
          : Math.min(items.length - 1, Math.max(0, at + by))
    items[next]?.focus()
    event.preventDefault()
  }

export const onArrowKeys = along('ArrowDown', 'ArrowUp')
/** Of what stands side by side. */
export const onSideKeys = along('ArrowRight', 'ArrowLeft')
