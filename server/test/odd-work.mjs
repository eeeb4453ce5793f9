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
