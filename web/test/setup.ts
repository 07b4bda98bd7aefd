// What jsdom leaves out and the router asks for.

import { TextDecoder, TextEncoder } from 'node:util'

Object.assign(globalThis, { TextDecoder, TextEncoder })
