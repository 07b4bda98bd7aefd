// What leads from each source to what it feeds, and from the board to a device: wire, joints, fuse and what guards a cell, what is lost and gets warm in them, and
// which others would do.

import { type Design, type DeviceLead, type Lead, leadField, type LeadOwner } from '@root-board/core/design'
import { type Connector, partsOfKind } from '@root-board/core/parts'
import { ledCurrent, type RankedLead } from '@root-board/core/power'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { ledOnly, needsProtection } from '@root-board/core/supply'
import { Button } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import { Choice } from '../../kit/inputs'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Captioned } from '../../kit/layout'
import { useStage } from '../../shared/analysis'
import { PartChoice } from '../../shared/PartChoice'
import { questions } from '../../worker/client'
import { Fields } from './Fields'
import { RankedTable, Ranking } from './RankedTable'
import { SourceCautions } from './SourceCautions'

const ask = (design: Design) => questions.leads(design)

/** What a lead is joined by, and not what is soldered to a board. */
const joins: readonly Connector['sort'][] = ['screw terminal', 'breadboard contact', 'crimp']

export const Leads = () => {
  const { analysis, design } = useStage()
  const { source, feed, deviceLeads } = analysis.power
  const begun = (of: LeadOwner) => Object.keys(design.power[leadField[of]] ?? {}).length > 0
  const some = (source && begun('source')) || (feed && begun('feed'))
  return (
    <>
      <section aria-labelledby="leads">
        <h2 id="leads">Wires and fuses</h2>
        {source && <LeadForm of="source" from={source.name} />}
        {feed && <LeadForm of="feed" from={feed.source.name} />}
        <DeviceLeads />
      </section>
      {some && (
        <Ranking
          id="lead-parts"
          title="Wires and fuses that would do"
          waiting="Trying every wire and every fuse with this current …"
          unplanned="More may flow than is reckoned with here."
          note="With what flows all the time: what rushes in for a moment when it is plugged in is not known, and may open a fuse that does."
          ask={ask}
        >
          {(ranked) =>
            ranked
              .filter((r) => begun(r.of))
              .map((r) => <Others key={r.of} of={r} named={ranked.length > 1 || deviceLeads.length > 0} />)
          }
        </Ranking>
      )}
    </>
  )
}

/** One of its parts, among those of the library. */
const LeadPart = ({
  id,
  field,
  label,
  none,
  lead,
  parts,
  change,
  also,
}: {
  id: string
  field: 'wire' | 'joint' | 'fuse' | 'protection'
  label: string
  none: string
  lead: Lead
  parts: readonly { id: string; name: string }[]
  change: (changed: Lead, what: string) => void
  /** What goes with it where none is chosen. */
  also?: Lead
}) => (
  <Captioned>
    <label htmlFor={`${id}-${field}`}>{label}</label>
    <PartChoice
      id={`${id}-${field}`}
      value={lead[field]}
      parts={parts}
      none={none}
      onChosen={(part) => change({ [field]: part?.id, ...(part ? {} : also) }, part?.name ?? `no ${field}`)}
    />
  </Captioned>
)

/** A wire with its length, joints with their number: of any lead. */
const WireFields = (of: {
  id: string
  lead: DeviceLead
  change: (changed: DeviceLead, what: string) => void
}) => {
  const { lead, change } = of
  const { library } = useStage()
  const contacts = partsOfKind(library, 'connector').filter((c) => joins.includes(c.sort))
  return (
    <>
      <QuantityField
        label="Length, one way"
        unit="m"
        min={0.001}
        max={100}
        optional
        width={84}
        placeholder="1.5 m"
        value={lead.length}
        onChange={(v) =>
          change({ length: v ?? undefined }, v === null ? 'no length' : formatQuantity(v, 'm'))
        }
      />
      <LeadPart {...of} field="wire" label="Wire" none="not said" parts={partsOfKind(library, 'wire')} />
      <LeadPart
        {...of}
        field="joint"
        label="Joints"
        none="none"
        parts={contacts}
        also={{ joints: undefined }}
      />
      {lead.joint && (
        <QuantityField
          label="How many in all"
          unit=""
          min={1}
          max={100}
          optional
          width={56}
          placeholder="4"
          value={lead.joints}
          onChange={(v) =>
            change(
              { joints: v === null ? undefined : Math.round(v) },
              v === null ? 'joints not counted' : `${Math.round(v)} joints`,
            )
          }
        />
      )}
    </>
  )
}

const LeadForm = ({ of, from }: { of: LeadOwner; from: string }) => {
  const { analysis, design, library, edit } = useStage()
  const lead = design.power[leadField[of]] ?? {}
  const source = of === 'feed' ? analysis.power.feed?.source : analysis.power.source
  const loaded = analysis.power.leads.find((l) => l.of === of)
  const change = (changed: Partial<Lead>, what: string) =>
    edit({ kind: 'changeLead', of, change: changed, what })
  const its = { id: of, lead, change }
  return (
    <>
      <h3>From {from}</h3>
      <Fields role="group" aria-label={`Lead from ${from}`}>
        <WireFields id={of} lead={lead} change={change} />
        <LeadPart {...its} field="fuse" label="Fuse" none="none" parts={partsOfKind(library, 'fuse')} />
        {((source && needsProtection(source)) || lead.protection) && (
          <LeadPart
            {...its}
            field="protection"
            label="Cell protection"
            none={source?.protection ? 'the one on the cell' : 'none'}
            parts={partsOfKind(library, 'protection')}
          />
        )}
      </Fields>
      <SaidByHalf lead={lead} />
      {loaded && ledOnly(loaded.parts) ? (
        <p>
          With everything at work up to <Num worked={loaded.current} show="max" /> through{' '}
          <Num worked={loaded.resistance} show="max" digits={2} />:{' '}
          <Num worked={loaded.drop} show="max" digits={2} /> lost on the way,{' '}
          <Num worked={loaded.heat} show="max" digits={2} /> of heat
          {loaded.parts.pass ? ', the transistor of the latch counted in.' : '.'}
        </p>
      ) : (
        Object.keys(lead).length === 0 && (
          <p className="faint">Nothing is said of this lead: it is reckoned as if nothing were lost in it.</p>
        )
      )}
      <SourceCautions source={source} />
    </>
  )
}

/** From the board to the devices that don’t sit on it. */
const DeviceLeads = () => {
  const { analysis, design, edit } = useStage()
  const [shown, setShown] = useState<readonly string[]>([])
  const [next, setNext] = useState('')
  const added = useRef<HTMLHeadingElement>(null)
  // What was added is gone on with: by keyboard its first field is one step away.
  useEffect(() => added.current?.focus(), [shown])
  const able = analysis.needs.instances.filter((i) => i.at === 1 && ledCurrent(i)).map((i) => i.need)
  if (able.length === 0) return null
  const open = able.filter((n) => n.lead !== undefined || shown.includes(n.id))
  const left = able.filter((n) => !open.includes(n))
  const chosen = left.some((n) => n.id === next) ? next : ''
  return (
    <>
      {open.map((need) => {
        const led = analysis.power.deviceLeads.find((l) => l.need === need.id)
        const lead = design.needs.devices.find((d) => d.id === need.id)?.lead ?? {}
        return (
          <div key={need.id}>
            <h3 ref={need.id === shown.at(-1) ? added : undefined} tabIndex={-1}>
              To {need.name}
              {need.count > 1 ? ', each' : ''}
            </h3>
            <Fields role="group" aria-label={`Lead to ${need.name}`}>
              <WireFields
                id={`lead-${need.id}`}
                lead={lead}
                change={(change, what) => edit({ kind: 'changeDeviceLead', id: need.id, change, what })}
              />
            </Fields>
            <SaidByHalf lead={lead} />
            {led && (
              <p>
                With its most, <Num worked={led.current} show="max" />, through{' '}
                <Num worked={led.resistance} show="max" digits={2} />:{' '}
                <Num worked={led.drop} show="max" digits={2} /> lost on the way,{' '}
                <Num worked={led.heat} show="max" digits={2} /> of heat
                {led.arrives ? (
                  <>
                    ; at least <Num worked={led.arrives} show="min" digits={3} /> arrive.
                  </>
                ) : (
                  '.'
                )}
              </p>
            )}
          </div>
        )
      })}
      {left.length > 0 && (
        <Fields>
          <Captioned>
            <label htmlFor="lead-to">A lead to</label>
            <Choice
              id="lead-to"
              value={chosen}
              options={[
                {
                  value: '',
                  label: open.length > 0 ? 'one more device …' : 'a device away from the board …',
                },
                ...left.map((n) => ({ value: n.id, label: n.name })),
              ]}
              onChange={setNext}
            />
          </Captioned>
          <Button
            variant="outlined"
            disabled={!chosen}
            onClick={() => {
              setShown((now) => [...now, chosen])
              setNext('')
            }}
          >
            Add this lead
          </Button>
        </Fields>
      )}
    </>
  )
}

const SaidByHalf = ({ lead }: { lead: DeviceLead }) => (
  <>
    {lead.wire && !lead.length && (
      <p className="stops">Say how long it is: until then this wire is left out of every sum.</p>
    )}
    {lead.joint && !lead.joints && (
      <p className="stops">Say how many joints: until then they are left out of every sum.</p>
    )}
  </>
)

const Others = ({ of: { of, source, wires, fuses }, named }: { of: RankedLead; named: boolean }) => {
  const { edit } = useStage()
  const whose = named ? ` from ${source.name}` : ''
  const choose = (change: Lead, what: string) => edit({ kind: 'changeLead', of, change, what })
  return (
    <>
      <h3 id={`wires-${of}`}>Wires{whose}</h3>
      {wires.length > 0 ? (
        <RankedTable
          label={`wires-${of}`}
          what="Wire"
          heads={['May carry', 'Lost', 'Heat', 'A metre']}
          rows={wires.map((w) => ({
            id: w.wire.id,
            name: w.wire.name,
            about: w.wire.gauge,
            no: w.no,
            chosen: w.chosen,
            cells: [
              <Num key="carries" worked={w.carries} show="max" />,
              <Num key="drop" worked={w.drop} show="max" digits={2} />,
              <Num key="heat" worked={w.heat} show="max" digits={2} />,
              euro(w.wire.price),
            ],
            choose: () => choose({ wire: w.wire.id }, w.wire.name),
          }))}
        />
      ) : (
        <p className="faint">With its length every wire is tried.</p>
      )}
      <h3 id={`fuses-${of}`}>Fuses{whose}</h3>
      <RankedTable
        label={`fuses-${of}`}
        what="Fuse"
        heads={['Holds in this air', 'Lost in it', 'Price']}
        rows={fuses.map((f) => ({
          id: f.fuse.id,
          name: f.fuse.name,
          about: `${f.fuse.sort === 'blow' ? 'blows once' : 'heals itself'}, opens surely at ${formatQuantity(fullRange(f.fuse.trips).max, 'A')}`,
          no: f.no,
          unsure: f.unsure,
          chosen: f.chosen,
          cells: [
            <Num key="holds" worked={f.holds} show="min" />,
            <Num key="drop" worked={f.drop} show="max" digits={2} />,
            euro(f.fuse.price),
          ],
          choose: () => choose({ fuse: f.fuse.id }, f.fuse.name),
        }))}
      />
    </>
  )
}
