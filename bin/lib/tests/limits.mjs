// Gives each test and hook a time after which it has failed: the light runner itself would wait for ever. A test that
// needs longer says so as its last argument, as in Jest.

/** Where other lanes want the processors too, everything takes longer, and units stand back for all of them. */
const USUAL_MS = /units/.test(process.env.RADIANT_TEST_DATA ?? '') ? 600_000 : 150_000;
const { clearTimeout, setTimeout } = globalThis;

function limited(fn, ms = USUAL_MS) {
  if (typeof fn !== 'function') return fn;
  return async (...args) => {
    let timer;
    const late = new Promise((_, failed) => {
      timer = setTimeout(() => failed(new Error(`Not done after ${ms} ms.`)), ms);
    });
    try {
      return await Promise.race([fn(...args), late]);
    } finally {
      clearTimeout(timer);
    }
  };
}

function withLimits(own) {
  const test = (name, fn, ms) => own(name, limited(fn, ms), ms);
  return Object.assign(test, own, {
    each:
      (...table) =>
      (name, fn, ms) =>
        own.each(...table)(name, limited(fn, ms), ms),
  });
}

export default function limits() {
  for (const name of ['it', 'test']) {
    const own = globalThis[name];
    globalThis[name] = Object.assign(withLimits(own), { only: withLimits(own.only) });
  }
  for (const name of ['beforeAll', 'beforeEach', 'afterAll', 'afterEach']) {
    const own = globalThis[name];
    globalThis[name] = (fn, ms) => own(limited(fn, ms), ms);
  }
}
