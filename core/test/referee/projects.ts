// Random projects over the whole library, as project files. What a generator like this draws nobody had in mind.

import { seeded } from '../seeded'
import { type Json, unitNeeded } from './files'

export interface Sort {
  /** About how many signals are asked for. */
  signals: [least: number, most: number]
  /** Tight: one frequency too many, one unit or leg too few, many that are equal. */
  hard?: boolean
  carriers?: (part: { kind: string; id: string }) => boolean
}

const footprintOf = (board: Json): string | undefined => board.headers[0]?.footprint

export const randomProject = (parts: Map<string, Json>, seed: number, sort: Sort): object => {
  const random = seeded(seed)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const chance = (share: number) => random() < share
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!
  const all = [...parts.values()].sort((a, b) => (a.id < b.id ? -1 : 1))
  const carriers = all.filter(
    (p) =>
      (p.kind === 'chip' || p.kind === 'board') &&
      (sort.carriers?.(p as { kind: string; id: string }) ?? true),
  )
  const carrier = pick(carriers)
  const chip = carrier.kind === 'board' ? parts.get(carrier.chip)! : carrier
  const fits = carrier.kind === 'board' ? footprintOf(carrier) : undefined
  const everything = all.filter((p) => p.kind === 'device' && (!p.expansion || p.expansion.fits === fits))
  // Mostly what the chip has units for; now and then what it hasn’t.
  const has = new Set((chip.units as Json[]).map((u) => u.kind as string))
  const served = (d: Json) =>
    d.wirings.some((w: Json) =>
      w.signals.every((s: Json) => {
        const kind = s.bus ?? unitNeeded[s.kind]
        if (s.kind === 'reference') return chip.pins.some((p: Json) => p.type === 'reference')
        return kind === undefined || has.has(kind)
      }),
    )
  const mostly = !chance(0.05)
  const loose = everything.filter((p) => !p.expansion && (!mostly || served(p)))
  const decks = everything.filter((p) => p.expansion)
  const signalsOf = (d: Json): number => Math.min(...d.wirings.map((w: Json) => w.signals.length))
  const room = (chip.pins as Json[]).filter((p) => ['io', 'input', 'output'].includes(p.type)).length
  const target = Math.min(
    int(...sort.signals),
    sort.hard ? room + 1 : Math.max(3, Math.floor(room * (0.3 + 0.5 * random()))),
  )
  const devices: Json[] = []
  let asked = 0
  const add = (part: Json, count: number) => {
    const settings: Record<string, number> = {}
    for (const s of part.wirings[0].signals) {
      if (s.electrical.kind === 'led' && chance(0.3))
        settings[`${s.id}.current`] = pick([0.005, 0.01, 0.018, 0.036])
      if (s.kind === 'pwm' && chance(0.25)) settings[`${s.id}.frequency`] = pick([50, 200, 1000, 2700])
    }
    const fixed = part.wirings.length > 1 && chance(0.4)
    devices.push({
      id: `d${devices.length + 1}`,
      part: part.id,
      name: `Thing ${devices.length + 1}`,
      count,
      ...(fixed ? { wiring: pick(part.wirings as Json[]).id } : {}),
      ...(part.wirings.some((w: Json) => w.signals.some((s: Json) => s.bus)) && chance(0.1)
        ? { bus: 2 }
        : {}),
      ...(Object.keys(settings).length > 0 ? { settings } : {}),
    })
    asked += signalsOf(part) * count
  }
  if (decks.length > 0 && chance(0.6)) for (let n = int(1, 3); n > 0; n--) add(pick(decks), 1)
  if (sort.hard) {
    // Many equal ones of what there is little of.
    const few = loose.filter((d) =>
      d.wirings.some((w: Json) =>
        w.signals.some(
          (s: Json) =>
            ['pwm', 'analog-in', 'interrupt', 'touch', 'wake', 'bus', 'capture', 'quadrature'].includes(
              s.kind,
            ) || s.electrical.kind === 'led',
        ),
      ),
    )
    for (let n = int(2, 3); n > 0 && asked < target; n--)
      add(pick(few), int(2, Math.min(12, Math.max(2, target >> 1))))
  }
  for (let tries = 0; asked < target && tries < 60; tries++) {
    const part = pick(loose)
    if (asked + signalsOf(part) > target + 2) continue
    add(part, chance(0.7) ? 1 : int(2, 4))
  }
  const pins = (chip.pins as Json[]).filter((p) => p.type === 'io').map((p) => p.id as string)
  const signalIds = devices.flatMap((d) =>
    Array.from({ length: d.count }, (_, i) =>
      parts
        .get(d.part)!
        .wirings[0].signals.filter((s: Json) => !s.bus)
        .map((s: Json) => `${d.id}.${i + 1}.${s.id}`),
    ).flat(),
  )
  const some = (share: number): Record<string, string> =>
    Object.fromEntries(signalIds.filter(() => chance(share)).map((s) => [s, pick(pins)]))
  const boards = all.filter(
    (p) => p.kind === 'board' && fits !== undefined && footprintOf(p) === fits && p.id !== carrier.id,
  )
  const also = boards.filter(() => chance(0.3)).map((b) => b.id as string)
  const radio = chip.radio !== undefined && chance(0.5)
  const analog = signalIds.filter(() => chance(0.1))
  const source = (chip.clockSources as Json[]).find((s) => s.kind === 'internal') ?? chip.clockSources[0]
  // Devices on another supply than the rail may put more on a leg than it stands.
  const ofKind = (kind: string) => all.filter((p) => p.kind === kind).map((p) => p.id as string)
  const power =
    carrier.kind === 'chip' && chance(0.5)
      ? {
          source: pick(ofKind('source')),
          ...(chance(0.8) ? { regulator: pick(ofKind('regulator')) } : {}),
          ...(chance(0.4) ? { feed: pick(ofKind('source')) } : {}),
        }
      : {}
  if ('source' in power)
    for (const d of devices) if (chance(0.3)) d.fedBy = pick(['source', ...('feed' in power ? ['feed'] : [])])
  // From a row of its own, so that the rest of a project stays what it was.
  const other = seeded(seed * 7 + 3)
  const anyOf = (ids: string[]) => ids[Math.floor(other() * ids.length)]!
  const lead = () => ({
    ...(other() < 0.7
      ? { wire: anyOf(ofKind('wire')), length: Math.round(10 ** (2 * other() - 1) * 100) / 100 }
      : {}),
    ...(other() < 0.4
      ? { joint: anyOf(['terminal-screw', 'crimp-blade']), joints: 1 + Math.floor(other() * 6) }
      : {}),
    ...(other() < 0.5 ? { fuse: anyOf(ofKind('fuse')) } : {}),
    ...(other() < 0.2 ? { protection: anyOf(ofKind('protection')) } : {}),
  })
  const leads = {
    ...(other() < 0.4 ? { lead: lead() } : {}),
    ...('feed' in power && other() < 0.5 ? { feedLead: lead() } : {}),
  }
  const limits = {
    ambient: 30,
    ...(other() < 0.4 ? { coldest: [-30, -12, 4, 18][Math.floor(other() * 4)] } : {}),
    ...(other() < 0.3 ? { charges: [20, 200, 2000][Math.floor(other() * 3)] } : {}),
  }
  const cells = () => ({ series: 1 + Math.floor(other() * 8), parallel: 1 + Math.floor(other() * 3) })
  const { source: fed, feed } = power as { source?: string; feed?: string }
  const joins = (id: string | undefined) => all.find((p) => p.id === id)?.joins !== undefined
  const counted = {
    ...(joins(fed) ? { cells: cells() } : {}),
    ...(joins(feed) ? { feedCells: cells() } : {}),
  }
  const guard =
    fed && other() < 0.25 ? { guard: ['pfet-low', 'pfet-plain', 'pfet-strong'][Math.floor(other() * 3)] } : {}
  return {
    format: 1,
    name: `Random ${seed}`,
    stance: 'lean',
    needs: { devices, limits, ...(radio ? { radio } : {}) },
    chip: {
      part: carrier.id,
      ...(carrier.kind === 'chip'
        ? { clock: { source: source.id, frequency: pick(source.frequencies as Json[]) } }
        : {}),
      ...(also.length > 0 ? { also } : {}),
    },
    pins: {
      locks: chance(0.4) ? some(0.12) : {},
      excluded: pins.filter(() => chance(sort.hard ? 0 : 0.02)),
      kept: chance(0.4) ? some(0.5) : {},
      ...(chance(0.15) ? { soldered: some(0.1) } : {}),
      ...(chance(0.3) ? { resetAsPort: true } : {}),
      ...(radio ? { radio: Object.fromEntries(analog.map((s) => [s, pick(['pause', 'accept'])])) } : {}),
    },
    power: { ...power, ...counted, ...guard, ...leads },
    build: { support: {} },
  }
}
