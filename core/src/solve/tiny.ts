/** Bounds are sums of floating prices; costs are whole numbers. */
export const tiny = 1e-6
