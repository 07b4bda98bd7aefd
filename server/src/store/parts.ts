// The library: part files that came with the program, and parts the builder brought in.

import { FaultyFile, type Library, makeLibrary, type Part, readPart } from '@root-board/core/parts'
import { QueryTypes, type Sequelize } from 'sequelize'

export class PartStore {
  private readonly samples: Map<string, Part>

  constructor(
    private readonly db: Sequelize,
    samples: Part[],
  ) {
    this.samples = new Map(samples.map((p) => [p.id, p]))
  }

  private async own(): Promise<Part[]> {
    const rows = await this.db.query<{ part: string }>('SELECT part FROM parts ORDER BY id', {
      type: QueryTypes.SELECT,
    })
    return rows.map((r) => readPart(JSON.parse(r.part), 'database'))
  }

  async all(): Promise<Part[]> {
    return [...this.samples.values(), ...(await this.own())]
  }

  /** How many there are, without reading them. */
  async count(): Promise<number> {
    const [row] = await this.db.query<{ n: number }>('SELECT COUNT(*) AS n FROM parts', {
      type: QueryTypes.SELECT,
    })
    return this.samples.size + row!.n
  }

  async library(): Promise<Library> {
    return makeLibrary(await this.all())
  }

  /** Adds or replaces a part of the builder's own. Throws FaultyFile; a sample part can't be overwritten. */
  async add(data: unknown, file: string): Promise<Part> {
    const part = readPart(data, file)
    if (this.samples.has(part.id))
      throw new FaultyFile(file, [
        { path: 'id', message: `“${part.id}” is a sample part, which stays as it is: give yours another id` },
      ])
    await this.db.query(
      'INSERT INTO parts (id, part, changedAt) VALUES (:id, :part, :now) ON CONFLICT (id) DO UPDATE SET part = :part, changedAt = :now',
      { replacements: { id: part.id, part: JSON.stringify(data), now: new Date().toISOString() } },
    )
    return part
  }
}
