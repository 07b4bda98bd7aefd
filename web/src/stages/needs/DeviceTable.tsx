// The devices of the project, each with its name, count, wiring and settings.

import { type FedBy, feeders, type NeedDevice } from '@root-board/core/design'
import { formatQuantity } from '@root-board/core/quantity'
import { type Device, findPart } from '@root-board/core/parts'
import { voltageFor } from '@root-board/core/supply'
import { Button } from '@mui/material'
import { useEffect, useState } from 'react'
import { useSearchParams } from 'react-router'
import { Columns, hidden, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'
import { QuantityField } from '../../shared/QuantityField'

export const DeviceTable = () => {
  const { design, analysis, library } = useStage()
  return (
    <div className="scroll-x">
      <table className="ruled devices">
        <Columns
          of={[
            'Name',
            'Count',
            'Part and wiring',
            right('Signals'),
            right('At work, up to'),
            hidden('Remove'),
          ]}
        />
        <tbody>
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
        </tbody>
      </table>
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
  const [name, setName] = useState<string>()
  const [query] = useSearchParams()
  const asked = query.get('device') === need.id
  useEffect(() => {
    if (asked) document.getElementById(`name-${need.id}`)?.focus()
  }, [asked, need.id])
  const chosenByPlan = analysis.pins.plan?.wirings.find((w) => w.need === need.id)
  const wiring =
    part?.wirings.find((w) => w.id === (need.wiring ?? chosenByPlan?.wiring.id)) ?? part?.wirings[0]
  const address = part?.variants?.find((v) => v.id === need.variant)?.address ?? wiring?.address
  const rename = () => {
    if (name?.trim() && name.trim() !== need.name)
      edit({ kind: 'renameDevice', id: need.id, name: name.trim() })
    setName(undefined)
  }
  return (
    <tr>
      <td>
        <input
          id={`name-${need.id}`}
          className="plain"
          aria-label={`Name of ${need.name}`}
          value={name ?? need.name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
          onBlur={rename}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </td>
      <td>
        <input
          className="plain mono count"
          type="number"
          min={1}
          max={64}
          aria-label={`Count of ${need.name}`}
          value={need.count}
          onChange={(e) => {
            const count = Math.round(Number(e.target.value))
            if (count >= 1 && count <= 64) edit({ kind: 'setCount', id: need.id, count })
          }}
        />
      </td>
      <td>
        {part ? part.name : <span className="stops">not in the library: {need.part}</span>}
        {part && part.wirings.length > 1 && (
          <>
            <br />
            <select
              className="plain"
              aria-label={`Wiring of ${need.name}`}
              value={part.planChooses && !need.wiring ? '' : wiring?.id}
              onChange={(e) => edit({ kind: 'setWiring', id: need.id, wiring: e.target.value || null })}
            >
              {part.planChooses && (
                <option value="">
                  {chosenByPlan ? `plan’s choice: ${chosenByPlan.wiring.name}` : 'the plan chooses'}
                </option>
              )}
              {part.wirings.map((w) => (
                <option key={w.id} value={w.id}>
                  {w.name}
                </option>
              ))}
            </select>
          </>
        )}
        {part && part.wirings.length === 1 && <span className="faint"> · {wiring!.name}</span>}{' '}
        {address !== undefined &&
          (wiring?.addresses ? (
            <label className="setting">
              Address{' '}
              <select
                className="plain"
                value={need.address ?? address}
                onChange={(e) => edit({ kind: 'setAddress', id: need.id, address: Number(e.target.value) })}
              >
                {[address, ...wiring.addresses.map((a) => a.address).filter((a) => a !== address)].map(
                  (a) => (
                    <option key={a} value={a}>
                      {hex(a)}
                    </option>
                  ),
                )}
              </select>
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
        {wiring && <Settings need={need} wiring={wiring} />}
        {part?.variants && (
          <label className="setting">
            Variant{' '}
            <select
              className="plain"
              value={need.variant ?? ''}
              onChange={(e) => edit({ kind: 'setVariant', id: need.id, variant: e.target.value || null })}
            >
              <option value="">as in the sheet</option>
              {part.variants.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.name}
                  {v.tried ? '' : ' (untried)'}
                </option>
              ))}
            </select>
          </label>
        )}
      </td>
      <td className="right mono">{signals}</td>
      <td className="right">
        {worked ? (
          <Num worked={worked} show="max" />
        ) : (
          <span className="faint">{wiring?.signals.some(drawsFromLeg) ? 'not known yet' : 'none'}</span>
        )}
      </td>
      <td className="right">
        <Button
          aria-label={`Remove ${need.name}`}
          onClick={() => edit({ kind: 'removeDevice', id: need.id })}
        >
          ×
        </Button>
      </td>
    </tr>
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
      <select
        className="plain"
        aria-label={`Bus of ${need.name}`}
        value={need.bus ?? 1}
        onChange={(e) => edit({ kind: 'setBus', id: need.id, bus: Number(e.target.value) })}
      >
        {Array.from({ length: Math.min(4, Math.max(units, need.bus ?? 1)) }, (_, i) => (
          <option key={i} value={i + 1}>
            {kind === 'i2c' ? 'I2C' : 'SPI'} {i + 1}
          </option>
        ))}
      </select>
    </label>
  )
}

/** What feeds a device, where there is more than the rail. */
const FedBy = ({ need }: { need: NeedDevice }) => {
  const { analysis, edit } = useStage()
  const { supplies } = analysis.power
  const words: Record<FedBy, string> = {
    rail: 'rail',
    source: 'source',
    feed: 'second feed',
  }
  const voltage = (by: FedBy) => voltageFor(supplies, { fedBy: by })?.value.typ
  const volts = (by: FedBy) => {
    const typ = voltage(by)
    return typ === undefined ? '' : `, ${formatQuantity(typ, 'V', 2)}`
  }
  const there = feeders.filter(
    (by) =>
      by === (need.fedBy ?? 'rail') ||
      // Another rail than the chip’s own, and one that is fed.
      (voltage(by) && (by === 'rail' || supplies.fed[by] !== supplies.own)),
  )
  if (there.length < 2) return null
  return (
    <label className="setting">
      Fed from{' '}
      <select
        className="plain"
        value={need.fedBy ?? 'rail'}
        onChange={(e) => edit({ kind: 'setFedBy', id: need.id, by: e.target.value as FedBy })}
      >
        {there.map((by) => (
          <option key={by} value={by}>
            {words[by]}
            {volts(by)}
          </option>
        ))}
      </select>
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
