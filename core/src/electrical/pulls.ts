// Pull resistors: the window between too weak (leakage, rise time) and too strong (current that is wasted or that a
// driver must sink).

/** Largest pull-up: leakage must not pull an idle line below V_IH. R = (V_DD − V_IH) / I_leak, ohms. */
export const largestPullUp = (supply: number, inputHigh: number, leakage: number): number =>
  (supply - inputHigh) / leakage

/** Smallest pull for a wasted current. R = V / I, ohms. */
export const smallestPull = (supply: number, current: number): number => supply / current

/** I2C: smallest pull-up, R = (V_DD − V_OL,max) / I_OL (I2C-bus specification, section 7.1). */
export const smallestBusPullUp = (supply: number, outputLow: number, sinkCurrent: number): number =>
  (supply - outputLow) / sinkCurrent

/** I2C: largest pull-up, R = t_r / (0.8473 · C_b) (same section). t_r in seconds, C_b in farads. */
export const largestBusPullUp = (riseTime: number, capacitance: number): number =>
  riseTime / (0.8473 * capacitance)

/** Largest gate pull-down: leakage must leave the gate below half its least threshold. R = V_th / (2·I_leak). */
export const largestPullDown = (threshold: number, leakage: number): number => threshold / 2 / leakage

/** Time in seconds for a leakage current to charge a gate to its threshold: t = C·V_th / I. */
export const timeToThreshold = (capacitance: number, threshold: number, leakage: number): number =>
  (capacitance * threshold) / leakage
