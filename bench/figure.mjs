/** Prints one figure: name, value, unit, reference, ratio (above 1 is better than the reference). */
export function figure(name, value, unit, reference, ratio) {
  const digits = (v) => (v >= 100 ? v.toFixed(0) : v >= 1 ? v.toFixed(2) : v.toPrecision(3));
  console.log(`${name} ${digits(value)} ${unit} ${reference} ${digits(ratio)}`);
}

export function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1];
}

function timeMs(work) {
  const t = performance.now();
  work();
  return performance.now() - t;
}

/** Median time of one piece of work in ms; the first runs warm the engine up. */
export function medianMs(work, { warm = 1, runs = 5 } = {}) {
  for (let i = 0; i < warm; i++) work();
  return median(Array.from({ length: runs }, () => timeMs(work)));
}

/**
 * Times two ways to do one thing turn about, so that whatever else the machine does falls on both, and takes the
 * fastest of each: what is slower than the fastest was disturbed.
 */
export function fastestOfEach(own, theirs, { warm = 2, runs = 5 } = {}) {
  for (let i = 0; i < warm; i++) {
    own();
    theirs();
  }
  let ownMs = Infinity;
  let theirMs = Infinity;
  for (let i = 0; i < runs; i++) {
    ownMs = Math.min(ownMs, timeMs(own));
    theirMs = Math.min(theirMs, timeMs(theirs));
  }
  return { ownMs, theirMs, ratio: theirMs / ownMs };
}
