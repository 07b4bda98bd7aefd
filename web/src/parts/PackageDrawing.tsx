// A package from above, to scale, from the dimensions in its part file. What the file doesn't say is drawn as usual for
// its style and written without a number.

import { styled } from '@mui/material'
import type { Chip } from '@root-board/core/parts'

type Package = Chip['package']
interface Props {
  package: Package
  name: string
}
interface Leg {
  n: number
  x: number
  y: number
  width: number
  height: number
}

const mm = (metres: number) => metres * 1000
const shown = (metres: number | undefined) =>
  metres === undefined ? undefined : `${Number(mm(metres).toFixed(2))} mm`

const alongSides = (p: Package, sides: 2 | 4): { legs: Leg[]; length: number; width: number } => {
  const pitch = mm(p.pitch)
  const perSide = Math.ceil(p.legs / sides)
  const length = mm(p.length ?? 0) || perSide * pitch + pitch * 0.6
  const width =
    mm(p.width ?? 0) || (sides === 4 ? length : Math.max(pitch * 2.5, mm(p.rowSpacing ?? 0) * 0.8 || 6))
  const reach = Math.max(pitch * 0.5, (mm(p.rowSpacing ?? 0) - width) / 2, 0.6)
  const thick = Math.min(pitch * 0.45, 0.9)
  const start = (side: number) => (side - (perSide - 1) * pitch) / 2
  const legs: Leg[] = []
  for (let i = 0; i < p.legs; i++) {
    const side = Math.floor(i / perSide)
    const at = i % perSide
    const n = i + 1
    if (sides === 2) {
      // Leg 1 at the lower left when the notch is at the left: counted anticlockwise.
      const x = start(length) + at * pitch - thick / 2
      legs.push(
        side === 0
          ? { n, x, y: width, width: thick, height: reach }
          : { n, x: length - x - thick, y: -reach, width: thick, height: reach },
      )
      continue
    }
    const along = start(side % 2 === 0 ? width : length) + at * pitch - thick / 2
    if (side === 0) legs.push({ n, x: -reach, y: along, width: reach, height: thick })
    else if (side === 1) legs.push({ n, x: along, y: width, width: thick, height: reach })
    else if (side === 2) legs.push({ n, x: length, y: width - along - thick, width: reach, height: thick })
    else legs.push({ n, x: length - along - thick, y: -reach, width: thick, height: reach })
  }
  return { legs, length, width }
}

const inOneRow = (p: Package): { legs: Leg[]; length: number; width: number } => {
  const pitch = mm(p.pitch)
  const length = mm(p.length ?? 0) || p.legs * pitch
  const width = mm(p.width ?? 0) || Math.max(2, pitch)
  const from = (length - (p.legs - 1) * pitch) / 2
  return {
    length,
    width,
    legs: Array.from({ length: p.legs }, (_, i) => ({
      n: i + 1,
      x: from + i * pitch - 0.3,
      y: width / 2 - 0.3,
      width: 0.6,
      height: 0.6,
    })),
  }
}

const styleWords: Record<Package['style'], string> = {
  dip: 'two rows through holes',
  'two-sided': 'flat, legs on two sides',
  'four-sided': 'flat, legs on four sides',
  module: 'module',
  upright: 'upright, legs in one row',
  axial: 'lying, a lead at each end',
  radial: 'standing, leads below',
}

export const PackageDrawing = ({ package: p, name }: Props) => {
  const plan =
    p.style === 'four-sided'
      ? alongSides(p, 4)
      : p.style === 'dip' || p.style === 'two-sided' || p.style === 'module'
        ? alongSides(p, 2)
        : inOneRow(p)
  const { legs, length, width } = plan
  const margin = Math.max(length, width) * 0.16 + 1.6
  // The figure is at most so many pixels wide and high; numbers stay legible whatever the package's size.
  const scale = Math.min(340 / (length + 2 * margin), 190 / (width + 2 * margin))
  const text = 10.5 / scale
  const every = p.legs > 64 ? 10 : p.legs > 20 ? 5 : 1
  const numbered = legs.filter((l) => l.n === 1 || l.n === p.legs || l.n % every === 0)
  return (
    <Figure>
      <svg
        viewBox={`${-margin} ${-margin} ${length + 2 * margin} ${width + 2 * margin}`}
        role="img"
        aria-label={`${name} from above: ${p.name}, ${p.legs} legs`}
      >
        <rect
          className="body"
          x={0}
          y={0}
          width={length}
          height={width}
          rx={Math.min(length, width) * 0.03}
        />
        {p.style !== 'axial' && legs.length > 2 && (
          <circle
            className="first"
            cx={p.style === 'four-sided' ? width * 0.09 : length * 0.05}
            cy={p.style === 'four-sided' ? width * 0.09 : width * 0.84}
            r={Math.min(length, width) * 0.035}
          />
        )}
        {legs.map((l) => (
          <rect key={l.n} className="leg" x={l.x} y={l.y} width={l.width} height={l.height} />
        ))}
        {numbered.map((l) => {
          const left = l.x < 0
          const right = l.x >= length
          const above = l.y < 0
          return (
            <text
              key={l.n}
              className="leg-number"
              fontSize={text}
              textAnchor={left ? 'end' : right ? 'start' : 'middle'}
              x={left ? l.x - text * 0.3 : right ? l.x + l.width + text * 0.3 : l.x + l.width / 2}
              y={
                left || right
                  ? l.y + l.height / 2 + text * 0.35
                  : above
                    ? l.y - text * 0.3
                    : l.y + l.height + text
              }
            >
              {l.n}
            </text>
          )
        })}
      </svg>
      <figcaption>
        {p.name}: {styleWords[p.style]}, {p.legs} legs {shown(p.pitch)} apart
        {p.length !== undefined && p.width !== undefined && `, body ${shown(p.length)} × ${shown(p.width)}`}
        {p.height !== undefined && `, ${shown(p.height)} high`}
        {p.rowSpacing !== undefined && `, rows ${shown(p.rowSpacing)} apart`}. Soldered{' '}
        {p.solder === 'through-hole' ? 'through holes' : `on the ${p.solder.replace('surface', 'surface,')}`}.
      </figcaption>
    </Figure>
  )
}

const Figure = styled('figure')({
  margin: 0,
  '& svg': { width: '100%', maxHeight: 190 },
  '& .body': {
    fill: 'var(--sheet)',
    stroke: 'var(--ink)',
    strokeWidth: 1,
    vectorEffect: 'non-scaling-stroke',
  },
  '& .leg, & .first': {
    fill: 'none',
    stroke: 'var(--ink)',
    strokeWidth: 0.8,
    vectorEffect: 'non-scaling-stroke',
  },
  '& .leg-number': { fill: 'var(--faint)', fontFamily: 'var(--mono)' },
  '& figcaption': { color: 'var(--faint)', fontSize: 12.5 },
})
