// What jsdom leaves out: text encoders for the router, media queries for the choice of light.

import { TextDecoder, TextEncoder } from 'node:util'

Object.assign(globalThis, {
  TextDecoder,
  TextEncoder,
  matchMedia: () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }),
})
