/** How often something is so, small shares to a tenth: shareInFigures(0.034) is “3.4 %”, shareInFigures(0.34) “34 %”. */
export const shareInFigures = (share: number): string =>
  `${share < 0.095 ? (share * 100).toFixed(1) : Math.round(share * 100)}\u00a0%`
