// The devices of the project, each with its name, count, wiring and settings.

import { type FedBy, feederName, feedersOf, type NeedDevice } from '@root-board/core/design'
import { formatQuantity } from '@root-board/core/quantity'
import { type Device, findPart } from '@root-board/core/parts'
import { feederRail, voltageFor } from '@root-board/core/supply'
import { Button, styled } from '@mui/material'
import { useEffect } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Body, Cell, Columns, Row, Table, hidden, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Choice, TextInput } from '../../kit/inputs'
import { NameInput } from '../../kit/NameInput'

export const DeviceTable = () => {
  const { design, analysis, library } = useStage()
  return (
    <div className="scroll-x">
      <Devices className="devices">
        <Columns
          of={['Name', 'Count', 'Part and wiring', right('Signals'), right('Draws up to'), hidden('Remove')]}
        />
        <Body>
          {design.needs.devices.map((need) => {
            const part = findPart(library, 'device', need.part)
            const consumer = analysis.power.consumers.find((c) =>
              [need.id, `${need.id}.light`, `${need.id}.load`].includes(c.id),
            )
            return (
              <DeviceRow
                key={need.id}
                need={need}
                part={part}
                worked={consumer?.work}
                signals={
                  analysis.needs.signals.filter((s) => s.ends.some((e) => e.instance.need.id === need.id))
                    .length
                }
              />
            )
          })}
        </Body>
      </Devices>
    </div>
  )
}

type Worked = Parameters<typeof Num>[0]['worked']

const DeviceRow = ({
  need,
  part,
  worked,
  signals,
}: {
  need: NeedDevice
  part: Device | undefined
  worked: Worked | undefined
  signals: number
}) => {
  const { analysis, edit } = useStage()
  const [query] = useSearchParams()
  const asked = query.get('device') === need.id
  useEffect(() => {
    if (asked) document.getElementById(`name-${need.id}`)?.focus()
  }, [asked, need.id])
  const chosenByPlan = analysis.pins.plan?.wirings.find((w) => w.need === need.id)
  const wiring =
    part?.wirings.find((w) => w.id === (need.wiring ?? chosenByPlan?.wiring.id)) ?? part?.wirings[0]
  const onBridge = analysis.needs.instances.find((i) => i.need.id === need.id)?.hung?.bridge
  const hung = analysis.design.needs.devices.find((d) => d.id === onBridge)?.name
  const address = part?.variants?.find((v) => v.id === need.variant)?.address ?? wiring?.address
  return (
    <Row>
      <Cell>
        <NameInput
          id={`name-${need.id}`}
          label={`Name of ${need.name}`}
          value={need.name}
          maxLength={80}
          onRename={(name) => edit({ kind: 'renameDevice', id: need.id, name })}
        />
      </Cell>
      <Cell>
        <TextInput
          mono
          className="count"
          type="number"
          min={1}
          max={64}
          label={`Count of ${need.name}`}
          value={String(need.count)}
          onChange={(typed) => {
            const count = Math.round(Number(typed))
            if (count >= 1 && count <= 64) edit({ kind: 'setCount', id: need.id, count })
          }}
        />
      </Cell>
      <Cell>
        {part ? part.name : <span className="stops">not in the library: {need.part}</span>}
        {hung && <span className="faint"> · hangs on {hung}</span>}
        {part && part.wirings.length > 1 && !hung && (
          <>
            <br />
            <Choice
              label={`Wiring of ${need.name}`}
              value={part.planChooses && !need.wiring ? '' : (wiring?.id ?? '')}
              options={[
                ...(part.planChooses
                  ? [
                      {
                        value: '',
                        label: chosenByPlan
                          ? `plan’s choice: ${chosenByPlan.wiring.name}`
                          : 'the plan chooses',
                      },
                    ]
                  : []),
                ...part.wirings.map((w) => ({ value: w.id, label: w.name })),
              ]}
              onChange={(chosen) => edit({ kind: 'setWiring', id: need.id, wiring: chosen || null })}
            />
          </>
        )}
        {part?.assumed && (
          <span className="risks">
            {' '}
            · <Link to={`/parts/${encodeURIComponent(part.id)}`}>much of it assumed</Link>
          </span>
        )}
        {part && part.wirings.length === 1 && !hung && <span className="faint"> · {wiring!.name}</span>}{' '}
        {address !== undefined &&
          (wiring?.addresses ? (
            <label className="setting">
              Address{' '}
              <Choice
                value={need.address ?? address}
                options={[...new Set([address, ...wiring.addresses.map((a) => a.address)])].map((a) => ({
                  value: a,
                  label: hex(a),
                }))}
                onChange={(chosen) => edit({ kind: 'setAddress', id: need.id, address: chosen })}
              />
            </label>
          ) : (
            <span className="faint"> · address {hex(address)}</span>
          ))}{' '}
        {wiring && <WhichBus need={need} wiring={wiring} />}
        {part && need.count > 1 && (
          <span className="setting">
            {wiring?.chain && <span className="faint">· in a chain</span>}
            <Button
              title="Each with its own wiring, address and links"
              onClick={() => edit({ kind: 'splitDevice', id: need.id })}
            >
              One by one
            </Button>
          </span>
        )}
        {part?.supply && <FedBy need={need} />}
        {wiring && !hung && <Settings need={need} wiring={wiring} />}
        {part?.variants && (
          <label className="setting">
            Variant{' '}
            <Choice
              value={need.variant ?? ''}
              options={[
                { value: '', label: 'as in the sheet' },
                ...part.variants.map((v) => ({
                  value: v.id,
                  label: v.tried ? v.name : `${v.name} (untried)`,
                })),
              ]}
              onChange={(variant) => edit({ kind: 'setVariant', id: need.id, variant: variant || null })}
            />
          </label>
        )}
      </Cell>
      <Cell align="right" className="mono">
        {signals}
      </Cell>
      <Cell align="right">
        {worked ? (
          <Num worked={worked} show="max" />
        ) : (
          <span className="faint">{wiring?.signals.some(drawsFromLeg) ? 'not known yet' : 'none'}</span>
        )}
      </Cell>
      <Cell align="right">
        <Button
          aria-label={`Remove ${need.name}`}
          onClick={() => edit({ kind: 'removeDevice', id: need.id })}
        >
          ×
        </Button>
      </Cell>
    </Row>
  )
}

/** Its current is known once it has a leg and a supply. */
const drawsFromLeg = ({ electrical: { kind } }: Device['wirings'][number]['signals'][number]) =>
  kind === 'led' || kind === 'analog-load'

const hex = (address: number) => `0x${address.toString(16).toUpperCase().padStart(2, '0')}`

/** Which of several buses of a kind it is on, where the chip has more than one unit for them. */
const WhichBus = ({ need, wiring }: { need: NeedDevice; wiring: Device['wirings'][number] }) => {
  const { analysis, edit } = useStage()
  const kind = wiring.signals.find((s) => s.bus === 'i2c' || s.bus === 'spi')?.bus
  const units = analysis.chip.chip?.units.filter((u) => u.kind === kind).length ?? 1
  if (!kind || (units < 2 && need.bus === undefined)) return null
  return (
    <label className="setting">
      Bus{' '}
      <Choice
        label={`Bus of ${need.name}`}
        value={need.bus ?? 1}
        options={Array.from({ length: Math.min(4, Math.max(units, need.bus ?? 1)) }, (_, i) => ({
          value: i + 1,
          label: `${kind === 'i2c' ? 'I2C' : 'SPI'} ${i + 1}`,
        }))}
        onChange={(bus) => edit({ kind: 'setBus', id: need.id, bus })}
      />
    </label>
  )
}

/** What feeds a device, where there is more than the rail. */
const FedBy = ({ need }: { need: NeedDevice }) => {
  const { analysis, edit } = useStage()
  const { supplies } = analysis.power
  const voltage = (by: FedBy) => voltageFor(supplies, { fedBy: by })?.value.typ
  const volts = (by: FedBy) => {
    const typ = voltage(by)
    return typ === undefined ? '' : `, ${formatQuantity(typ, 'V', 2)}`
  }
  const there = feedersOf(analysis.design).filter(
    (by) =>
      by === (need.fedBy ?? 'rail') ||
      // Another rail than the chip’s own, and one that is fed.
      (voltage(by) && (by === 'rail' || feederRail(supplies, by) !== supplies.own)),
  )
  if (there.length < 2) return null
  return (
    <label className="setting">
      Fed from{' '}
      <Choice
        value={need.fedBy ?? 'rail'}
        options={there.map((by) => ({ value: by, label: `${feederName(by)}${volts(by)}` }))}
        onChange={(by) => edit({ kind: 'setFedBy', id: need.id, by })}
      />
    </label>
  )
}

/** What of a wiring can be set: an LED's current, a PWM's frequency. One field for signals of equal value. */
const Settings = ({ need, wiring }: { need: NeedDevice; wiring: Device['wirings'][number] }) => {
  const { edit } = useStage()
  const set = (settings: string[], value: number | null) =>
    edit(settings.map((setting) => ({ kind: 'setSetting' as const, id: need.id, setting, value })))
  const leds = wiring.signals.flatMap((s) =>
    s.electrical.kind === 'led'
      ? [{ setting: `${s.id}.current`, value: need.settings?.[`${s.id}.current`] ?? s.electrical.current }]
      : [],
  )
  const pulses = wiring.signals.flatMap((s) =>
    s.kind === 'pwm' && s.frequency !== undefined
      ? [{ setting: `${s.id}.frequency`, value: need.settings?.[`${s.id}.frequency`] ?? s.frequency }]
      : [],
  )
  return (
    <>
      {(leds.length <= 4 ? grouped(leds) : []).map((g) => (
        <span className="setting" key={g.settings.join()}>
          <QuantityField
            label="LED current"
            unit="A"
            width={84}
            min={1e-4}
            max={0.2}
            value={g.value}
            onChange={(value) => set(g.settings, value)}
          />
        </span>
      ))}
      {grouped(pulses).map((g) => (
        <span className="setting" key={g.settings.join()}>
          <QuantityField
            label="Frequency"
            unit="Hz"
            width={84}
            min={0.1}
            max={1e7}
            value={g.value}
            onChange={(value) => set(g.settings, value)}
          />
        </span>
      ))}
    </>
  )
}

/** Settings of one value, as one. */
const grouped = (all: { setting: string; value: number }[]): { settings: string[]; value: number }[] => {
  const groups = new Map<number, string[]>()
  for (const { setting, value } of all) groups.set(value, [...(groups.get(value) ?? []), setting])
  return [...groups].map(([value, settings]) => ({ settings, value }))
}

const Devices = styled(Table)({
  '& .MuiInputBase-root': { maxWidth: 270 },
  '& td:last-of-type .MuiButton-root': {
    padding: 0,
    minWidth: 28,
    fontSize: 16,
    lineHeight: '26px',
    borderColor: 'var(--line)',
  },
  '& td:first-of-type input': { fieldSizing: 'content', minWidth: 92, maxWidth: 190 },
  '& .count': { width: 52 },
  '& td': { fontSize: 13.5 },
  '& th': { whiteSpace: 'nowrap' },
  '& .setting .MuiButton-root': {
    padding: '0 7px',
    fontSize: 13,
    borderColor: 'var(--line)',
    whiteSpace: 'nowrap',
  },
  '& .setting': {
    display: 'inline-flex',
    gap: 5,
    alignItems: 'center',
    margin: '3px 10px 0 0',
    fontSize: 13,
  },
  '@media (max-width: 599px)': {
    '& thead': { display: 'none' },
    '& tr': {
      display: 'grid',
      gridTemplateColumns: 'minmax(0, 1fr) auto auto auto',
      gridTemplateAreas: "'name count current remove' 'part part part part'",
      alignItems: 'center',
      gap: '4px 8px',
      padding: '6px 0',
      borderBottom: '1px solid var(--line)',
    },
    '& td': { border: 0, padding: 0 },
    '& td:nth-of-type(1)': { gridArea: 'name' },
    '& td:nth-of-type(2)': { gridArea: 'count' },
    '& td:nth-of-type(3)': { gridArea: 'part' },
    '& td:nth-of-type(4)': { display: 'none' },
    '& td:nth-of-type(5)': { gridArea: 'current' },
    '& td:nth-of-type(6)': { gridArea: 'remove' },
  },
})
