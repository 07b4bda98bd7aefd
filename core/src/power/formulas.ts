// Sums about linear regulators. Volts, amperes, watts, °C, K/W.

/** Heat in a linear regulator: P = (V_in − V_out)·I_out + V_in·I_q. First principles: what goes in and doesn't come out. */
export const linearDissipation = (input: number, output: number, load: number, quiescent: number): number =>
  (input - output) * load + input * quiescent

/** Junction temperature T_J = T_A + P·θ_JA. */
export const junctionTemperature = (
  ambient: number,
  dissipation: number,
  thermalResistance: number,
): number => ambient + dissipation * thermalResistance

/** Drop-out margin: what is left above output and drop-out voltage; below zero the output sags. */
export const dropoutMargin = (input: number, output: number, dropout: number): number =>
  input - output - dropout

/** Highest load at which the junction stays at its limit, amperes; never below zero. Solved from the two above. */
export const loadAtLimit = (
  input: number,
  output: number,
  quiescent: number,
  ambient: number,
  limit: number,
  thermalResistance: number,
): number => Math.max(0, ((limit - ambient) / thermalResistance - input * quiescent) / (input - output))
