/** Speeds and rise times of the I2C-bus specification, table 10: standard mode, fast mode, fast mode plus. */
export const busModes = [
  { speed: 100e3, rise: 1000e-9, load: 400e-12, name: '100 kHz' },
  { speed: 400e3, rise: 300e-9, load: 400e-12, name: '400 kHz' },
  { speed: 1e6, rise: 120e-9, load: 550e-12, name: '1 MHz' },
]

/** The mode that a speed belongs to. */
export const busMode = (speed: number) => busModes.find((m) => speed <= m.speed) ?? busModes.at(-1)!
