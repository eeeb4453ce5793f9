// Work that misbehaves, for the tests of threads.
export const echo = (input) => input;
export const forever = () => {
  for (;;);
};
export const eat = () => {
  const all = [];
  for (;;) all.push({ n: all.length, text: `piece ${all.length}` });
};
export const wait = (ms) => new Promise((done) => setTimeout(() => done(ms), ms));
export const fail = () => {
  throw new Error('as told');
};
export const steps = async ({ line, n }) => {
  for (let i = 1; i <= n; i++) {
    line?.postMessage({ what: `step ${i}`, share: i / n });
    await new Promise((done) => setTimeout(done, 40));
  }
  return n;
};
