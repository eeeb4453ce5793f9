import { MessageChannel } from 'node:worker_threads';
import { Refusal, type ToothPlan } from '@radiant/core';
import { expose, wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { CaseClient } from '../src/engine/case-client.js';
import { faultOf, Work, WorkLost } from '../src/engine/work.js';

/** A worker as far as `Work` knows one. */
class FakeWorker extends EventTarget {
  ended = false;
  readonly posted: unknown[] = [];
  terminate(): void {
    this.ended = true;
  }
}
const begin = () => {
  const worker = new FakeWorker();
  return { worker, work: new Work(worker as unknown as Worker) };
};
const never = new Promise<never>(() => undefined);

describe('what is asked of a worker', () => {
  it('ends with its answer, or with what it throws', async () => {
    const { work } = begin();
    await expect(work.answer(() => Promise.resolve(7))).resolves.toBe(7);
    await expect(
      work.answer(() => Promise.reject(new Refusal('tooth-missing', 'The scan has no tooth {12}.'))),
    ).rejects.toMatchObject({ code: 'tooth-missing' });
  });

  it.each(['error', 'messageerror'])(
    'ends when the worker breaks down (%s): nobody waits for ever, and later questions end too',
    async (event) => {
      const { worker, work } = begin();
      const asked = work.answer(() => never);
      worker.dispatchEvent(new Event(event));
      await expect(asked).rejects.toThrow(WorkLost);
      await expect(work.answer(() => never)).rejects.toThrow(WorkLost);
      expect([work.isLost, worker.ended]).toEqual([true, true]);
    },
  );

  it('ends when it is no longer wanted, and its worker is given back', async () => {
    const { worker, work } = begin();
    const asked = work.answer(() => never);
    work.end();
    await expect(asked).rejects.toThrow('The work on the scan has stopped.');
    expect(worker.ended).toBe(true);
  });

  it('ends also where the worker is let go and lives on', async () => {
    const { worker, work } = begin();
    const asked = work.answer(() => never);
    work.release();
    await expect(asked).rejects.toThrow(WorkLost);
    worker.dispatchEvent(new Event('error'));
    expect([work.isIdle, worker.ended]).toEqual([false, false]);
  });
});

describe('the thread of a case', () => {
  const threads: FakeWorker[] = [];
  const global = globalThis as { Worker?: unknown };
  const before = global.Worker;
  beforeAll(() => {
    global.Worker = class extends FakeWorker {
      constructor() {
        super();
        threads.push(this);
      }
      // Questions get no answer here, save that a case is begun.
      postMessage(asked: { id?: string; path?: string[] }): void {
        this.posted.push(asked);
        if (asked.path?.[0] === 'begin')
          this.dispatchEvent(new MessageEvent('message', { data: { id: asked.id, type: 'RAW', value: undefined } }));
      }
    };
  });
  afterAll(() => {
    global.Worker = before;
  });

  it('is handed on to the next case', () => {
    const first = new CaseClient();
    first.end();
    expect(first.isLost).toBe(true);
    const second = new CaseClient();
    expect(threads.length).toBe(1);
    expect([second.isLost, threads[0]?.ended]).toEqual([false, false]);
  });

  it('hears nothing more of the case that was left: a plan that comes late is not the next case’s', async () => {
    const first = new CaseClient();
    const thread = threads.at(-1);
    first.end();
    const posted = thread?.posted.length;
    const late = first.ask({ 11: {} as ToothPlan }, 'existing', 'upper');
    await expect(late).rejects.toThrow(WorkLost);
    await expect(first.loadUpper('/elsewhere')).rejects.toThrow(WorkLost);
    expect(thread?.posted.length).toBe(posted);
  });

  it('is ended where it is still at work', async () => {
    const busy = new CaseClient();
    const asked = busy.loadUpper('/somewhere');
    const thread = threads.at(-1);
    busy.end();
    await expect(asked).rejects.toThrow(WorkLost);
    expect(thread?.ended).toBe(true);
  });

  it('is not handed on once it has broken down', () => {
    const first = new CaseClient();
    const thread = threads.at(-1);
    first.end();
    thread?.dispatchEvent(new Event('error'));
    expect(thread?.ended).toBe(true);
    const made = threads.length;
    new CaseClient().end();
    expect(threads.length).toBe(made + 1);
    threads.at(-1)?.dispatchEvent(new Event('error'));
  });
});

describe('refusals between threads', () => {
  const { port1, port2 } = new MessageChannel();
  afterAll(() => port1.close());
  const service = {
    refuse: () => {
      throw new Refusal('scan-without-teeth', 'The scan has too few upper front teeth.', [11, 12]);
    },
    break: () => (undefined as unknown as { x: number }).x,
  };
  expose(service, nodeEndpoint(port2));
  const remote = wrap<typeof service>(nodeEndpoint(port1));
  const thrown = (asked: Promise<unknown>) =>
    asked.then(
      () => undefined,
      (e: unknown) => e,
    );

  it('keep their type, code, sentence and what was received', async () => {
    const error = await thrown(remote.refuse());
    expect(error).toBeInstanceOf(Refusal);
    expect(error).toMatchObject({
      code: 'scan-without-teeth',
      message: 'The scan has too few upper front teeth.',
      received: [11, 12],
    });
    expect(faultOf(error)).toBe('The scan has too few upper front teeth.');
  });

  it('are told from faults of ours, whose words are not for people', async () => {
    const error = await thrown(remote.break());
    expect(error).toBeInstanceOf(Error);
    expect(error).not.toBeInstanceOf(Refusal);
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    expect(faultOf(error)).toBe('This could not be worked out.');
    expect(said).toHaveBeenCalledWith(error);
    said.mockRestore();
  });
});
