// What is shown where a part of the page fails, instead of nothing: what happened, and that nothing is lost.

import { Button } from '@mui/material'
import { Component, type ReactNode } from 'react'
import { Link, useRouteError } from 'react-router'
import { PlainPage } from '../kit/layout'

interface Props {
  /** What failed, in words: “The Pins page”. */
  what: string
  /** Something else is tried again: another page, another design. */
  anew?: unknown
  children: ReactNode
}

export class Boundary extends Component<Props, { error?: Error; anew?: unknown }> {
  override state: { error?: Error; anew?: unknown } = { anew: this.props.anew }
  static getDerivedStateFromError(error: Error) {
    return { error }
  }
  static getDerivedStateFromProps({ anew }: Props, state: { anew?: unknown }) {
    return anew === state.anew ? null : { error: undefined, anew }
  }
  override render() {
    const { error } = this.state
    if (!error) return this.props.children
    return (
      <section className="empty" role="alert">
        <p className="stops">
          {this.props.what} can’t be shown ({error.message}). Nothing of your project is lost by that. Undo
          the last change, or go on with another page.
        </p>
        <Button onClick={() => this.setState({ error: undefined })}>Try again</Button>
      </section>
    )
  }
}

/** At an address that is none of the program’s. */
export const NothingHere = () => (
  <PlainPage>
    <h1>There is nothing at this address</h1>
    <p>
      <Link to="/">All projects</Link> · <Link to="/parts">The library</Link>
    </p>
  </PlainPage>
)

/** In place of a whole page that failed. */
export const PageFailed = () => {
  const error = useRouteError()
  return (
    <PlainPage role="alert">
      <h1>This page can’t be shown</h1>
      <p className="stops">{error instanceof Error ? error.message : String(error)}</p>
      <p>
        Nothing is lost by that: what was saved is stored, and what was not lies in this browser, where it had
        room. <Button onClick={() => window.location.reload()}>Try again</Button>{' '}
        <Link to="/">All projects</Link>
      </p>
    </PlainPage>
  )
}
