/** Share of a standard normal above a deviate (Abramowitz and Stegun 1964, 26.2.17), within a ten-millionth. */
export function above(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? tail : 1 - tail;
}

/** The deviate of a standard normal below which lies a share (Abramowitz and Stegun 1964, 26.2.23), within half a thousandth. */
export function deviateAt(share: number): number {
  const t = Math.sqrt(-2 * Math.log(Math.min(share, 1 - share)));
  const z = t - (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308)));
  return share < 0.5 ? -z : z;
}

/** The deviate beyond which a standard normal has so much on the average: its loss function, the other way round. */
export function deviateOfLoss(loss: number): number {
  let [low, high] = [-Math.max(6, loss + 1), 6];
  for (let i = 0; i < 30; i += 1) {
    const z = (low + high) / 2;
    const lost = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI) - z * above(z);
    if (lost > loss) low = z;
    else high = z;
  }
  return high;
}
