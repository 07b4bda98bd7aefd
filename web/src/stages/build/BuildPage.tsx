// Build: the support circuit, the parts list, the wiring table and the steps, in four views of one page.

import { Tab, Tabs, styled } from '@mui/material'
import { Link, useSearchParams } from 'react-router'
import { useStage } from '../../shared/analysis'
import { Exports } from './Exports'
import { PartsList } from './PartsList'
import { Steps } from './Steps'
import { Support } from './Support'
import { Wiring } from './Wiring'

const views = [
  { id: 'support', title: 'Support circuit', View: Support },
  { id: 'parts', title: 'Parts list', View: PartsList },
  { id: 'wiring', title: 'Wiring table', View: Wiring },
  { id: 'steps', title: 'Steps and checks', View: Steps },
] as const

const BuildPage = () => {
  const { analysis } = useStage()
  const [query, setQuery] = useSearchParams()
  const view = views.find((v) => v.id === query.get('view')) ?? views[0]
  const { missing } = analysis.build
  return (
    <Page>
      <header>
        <h1>Build</h1>
        {analysis.build.parts.length > 0 && <Exports />}
      </header>
      {missing.length > 0 && (
        <p className="empty">
          Before there is a board to build, it needs {missing.join(' and ')}.{' '}
          {missing.includes('a chip') ? (
            <Link to="../chip">Choose a chip</Link>
          ) : missing.includes('a source') ? (
            <Link to="../power">Choose a source</Link>
          ) : (
            <Link to="../pins">See the pins</Link>
          )}
          .
        </p>
      )}
      {analysis.build.parts.length > 0 && (
        <>
          <Tabs
            value={view.id}
            onChange={(_, id: string) => setQuery({ view: id }, { replace: true })}
            aria-label="Views of the build"
          >
            {views.map((v) => (
              <Tab
                key={v.id}
                value={v.id}
                label={v.title}
                id={`tab-${v.id}`}
                aria-controls={`view-${v.id}`}
              />
            ))}
          </Tabs>
          <div
            role="tabpanel"
            id={`view-${view.id}`}
            aria-labelledby={`tab-${view.id}`}
            className="build-view scroll-narrow"
          >
            <view.View />
          </div>
        </>
      )}
    </Page>
  )
}

export default BuildPage

const Page = styled('div')({
  '& header': {
    display: 'flex',
    flexWrap: 'wrap',
    justifyContent: 'space-between',
    alignItems: 'baseline',
    gap: 6,
  },
  '& header p': { margin: 0 },
  '& .MuiTabs-root, & .MuiTab-root': { minHeight: 38 },
  '& .MuiTab-root': {
    textTransform: 'none',
    fontSize: 14,
    padding: '8px 14px 8px 0',
    marginRight: 16,
    minWidth: 0,
    alignItems: 'flex-start',
  },
  '& .build-view': { paddingTop: 8 },
  '& .build-view table': { fontSize: 13.5 },
  '& tr.total th, & tr.total td': { borderTop: '1.5px solid var(--ink)', color: 'var(--ink)' },
})
