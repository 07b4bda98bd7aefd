// A line drawing on a card of its own: black on white by day and by lamp, printed, and downloaded as SVG or PNG.

import { Button } from '@mui/material'
import { type ReactNode, useRef } from 'react'
import { useStage } from '../shared/analysis'
import { fileName, hand } from '../shared/words'
import { ink } from './ink'

interface Props {
  /** Of the project, for the file’s name. */
  project: string
  title: string
  /** Ending of the file’s name: “legs”. */
  file: string
  width: number
  height: number
  /** What of the drawing can be chosen, beside its title. */
  tools?: ReactNode
  /** Said below the drawing, and in its file. */
  note?: string
  children: ReactNode
}

const line = 18
/** Dots for each unit of the drawing: enough for paper. */
const scale = 3

/** The drawing as a file that stands alone. */
const standalone = (svg: SVGSVGElement): string =>
  new XMLSerializer().serializeToString(svg).replace('<svg', '<?xml version="1.0" encoding="UTF-8"?>\n<svg')

const asPng = async (svg: SVGSVGElement, width: number, height: number): Promise<Blob> => {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standalone(svg))}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = width * scale
  canvas.height = height * scale
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png'),
  )
}

export const Picture = ({ project, title, file, width, height, tools, note, children }: Props) => {
  const { analysis } = useStage()
  // A picture leaves the program without its evidence.
  const stops = analysis.findings.filter((f) => f.severity === 'stops').length
  const below = [
    note,
    stops > 0 && `Not settled: ${stops === 1 ? 'one thing stops' : `${stops} things stop`} this project.`,
  ].filter((text) => typeof text === 'string')
  const size = { width, height: height + below.length * line }
  const svg = useRef<SVGSVGElement>(null)
  const name = (ending: string) => fileName(project, `-${file}.${ending}`)
  return (
    <section className="card" aria-label={title}>
      <h2>{title}</h2>
      <p className="screen-only">
        {tools}
        <Button
          onClick={() =>
            hand(name('svg'), new Blob([standalone(svg.current!)], { type: 'image/svg+xml;charset=utf-8' }))
          }
        >
          SVG
        </Button>{' '}
        <Button
          onClick={() =>
            void asPng(svg.current!, size.width, size.height).then((png) => hand(name('png'), png))
          }
        >
          PNG
        </Button>
      </p>
      {/* Scrolled by the arrow keys where it is wider than the page. */}
      <div className="scroll-x" role="group" aria-label={title} tabIndex={0}>
        <svg
          ref={svg}
          xmlns="http://www.w3.org/2000/svg"
          {...size}
          viewBox={`0 0 ${size.width} ${size.height}`}
          fontFamily="'Atkinson Hyperlegible Next Variable', 'Atkinson Hyperlegible Next', sans-serif"
          fontSize="12"
          role="img"
          aria-label={`${title} of ${project}`}
        >
          <rect {...size} fill="#fff" />
          {children}
          {below.map((text, i) => (
            <text key={text} x="10" y={height + i * line + 6} fontSize="11" fontWeight="650" fill={ink}>
              {text}
            </text>
          ))}
        </svg>
      </div>
    </section>
  )
}
