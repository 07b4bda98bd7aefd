// A stage page with the real analysis of a real design around it; edits go to the real store and are analysed at once.

import { type Analysis, analyse } from '@root-board/core/analysis'
import { type Design, readDesign } from '@root-board/core/design'
import { type Library, makeLibrary, readPart } from '@root-board/core/parts'
import type { Patience } from '@root-board/core/patience'
import type { Shown, Worked } from '@root-board/core/findings'
import { spelled } from '@root-board/core/sums'
import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { configure, render } from '@testing-library/react'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { deserialize, serialize } from 'node:v8'
import { ThemeProvider } from '@mui/material'
import { type ReactNode, useMemo } from 'react'
import { MemoryRouter } from 'react-router'
import { themeFor } from '../src/kit/theme'
import { StageContext, type StageData } from '../src/shared/analysis'
import { useProject } from '../src/store/project'
import { follow, pathTo } from '../src/worker/path'

// What is answered is shown within the act that answers it.
notifyManager.setScheduler(queueMicrotask)

const root = join(__dirname, '..', '..')
const read = (file: string): unknown => JSON.parse(readFileSync(join(root, file), 'utf8'))

export const library: Library = makeLibrary(
  readdirSync(join(root, 'library'), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.json'))
    .map((f) => readPart(read(join('library', f)), f)),
)
export const demo = (name: string): Design => readDesign(read(`demo/${name}.json`), name)
export const timer = (): Design => demo('darkroom-timer')

interface AroundProps {
  children: ReactNode
  /** How long plans are searched for; absent: to the end. */
  patience?: () => Patience
  looking?: Partial<StageData>
}

const Around = ({ children, patience, looking }: AroundProps) => {
  const design = useProject((s) => s.design)!
  // Copied and asked as through the worker: the numbers leave behind how they were worked out.
  const { analysis, workingOf } = useMemo(() => {
    const kept = analyse(design, library, patience?.())
    return {
      analysis: deserialize(serialize(kept)) as Analysis,
      workingOf: (of: Analysis, shown: Shown) =>
        Promise.resolve(spelled(follow(kept, pathTo(of, shown)!)) as Worked),
    }
  }, [design, patience])
  return (
    <StageContext.Provider
      value={{
        analysis,
        pending: false,
        library,
        design,
        lookLonger: () => undefined,
        lookedLonger: false,
        enough: () => undefined,
        workingOf,
        ...looking,
      }}
    >
      {children}
    </StageContext.Provider>
  )
}

// A page is looked for by role, which is slow, also on a busy machine.
configure({ asyncUtilTimeout: 5000 })
const look = themeFor('light')

/** Shows a page of the given design at an address such as `/pins?leg=PC5`. */
export const show = (
  page: ReactNode,
  design: Design = timer(),
  address = '/',
  around: Omit<AroundProps, 'children'> = {},
) => {
  useProject.getState().open('p1', design, 1, { kind: 'saved' })
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <ThemeProvider theme={look}>
        <MemoryRouter initialEntries={[address]}>
          <Around {...around}>{page}</Around>
        </MemoryRouter>
      </ThemeProvider>
    </QueryClientProvider>,
  )
}

export const design = (): Design => useProject.getState().design!
export const steps = (): string[] => useProject.getState().done.map((s) => s.label)
