// Up and down through a list of buttons that is one stop for the Tab key.

import type { KeyboardEvent } from 'react'

/** For the element around the buttons, each marked `data-item`. */
export const onArrowKeys = (event: KeyboardEvent<HTMLElement>): void => {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!by && event.key !== 'Home' && event.key !== 'End') return
  const items = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-item]')]
  const at = items.indexOf(document.activeElement as HTMLElement)
  const next =
    event.key === 'Home'
      ? 0
      : event.key === 'End'
        ? items.length - 1
        : Math.min(items.length - 1, Math.max(0, at + by!))
  items[next]?.focus()
  event.preventDefault()
}
