import { install } from '@sinonjs/fake-timers';
import { isSlow, subscribeSlow, watched } from '../src/data/slow.js';

let clock: ReturnType<typeof install>;
beforeEach(() => {
  clock = install({ toFake: ['setTimeout', 'clearTimeout'] });
});
afterEach(() => clock.uninstall());

describe('an answer that is waited for', () => {
  it('is told of after five seconds, until the last such answer is there, and comes through untouched', async () => {
    const told: boolean[] = [];
    const deaf = subscribeSlow(() => told.push(isSlow()));
    let answer: (v: number) => void = () => undefined;
    let fail: (e: Error) => void = () => undefined;
    const one = watched(new Promise<number>((done) => (answer = done)));
    const two = watched(new Promise<number>((_, no) => (fail = no)));
    await clock.tickAsync(4900);
    expect(isSlow()).toBe(false);
    await clock.tickAsync(200);
    expect(isSlow()).toBe(true);
    answer(7);
    await expect(one).resolves.toBe(7);
    expect(isSlow()).toBe(true);
    fail(new Error('cut'));
    await expect(two).rejects.toThrow('cut');
    expect(told).toEqual([true, false]);
    deaf();
  });

  it('is not told of where it comes in time', async () => {
    const quick = watched(new Promise<number>((done) => setTimeout(() => done(1), 3000)));
    await clock.tickAsync(3000);
    await expect(quick).resolves.toBe(1);
    await clock.tickAsync(9000);
    expect(isSlow()).toBe(false);
  });
});
