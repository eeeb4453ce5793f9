import type { StepTimer } from '@radiant/contract';
import { leftMs } from '@radiant/core';
import { useEffect, useRef } from 'react';
import type { ChairClock } from '../../data/chair-clock.js';

/** Three short tones, made here: nothing is fetched. Browsers let a page sound once somebody has touched it. */
function sound(context: AudioContext): void {
  for (const n of [0, 1, 2]) {
    const at = context.currentTime + n * 0.28;
    const tone = context.createOscillator();
    const loud = context.createGain();
    tone.frequency.value = 880;
    loud.gain.setValueAtTime(0.0001, at);
    loud.gain.exponentialRampToValueAtTime(0.35, at + 0.02);
    loud.gain.exponentialRampToValueAtTime(0.0001, at + 0.2);
    tone.connect(loud).connect(context.destination);
    tone.start(at);
    tone.stop(at + 0.22);
  }
}

/** Sounds when a timer is over, also while the tab is in the background. */
export function useAlarm(timers: readonly StepTimer[], clock: ChairClock): void {
  const worker = useRef<Worker | undefined>(undefined);
  const context = useRef<AudioContext | undefined>(undefined);
  useEffect(() => {
    const own = new Worker(new URL('./alarm.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = () => {
      try {
        context.current ??= new AudioContext();
        void context.current.resume().then(() => context.current && sound(context.current));
      } catch {
        // A device without sound flashes all the same.
      }
    };
    worker.current = own;
    return () => {
      own.terminate();
      worker.current = undefined;
      void context.current?.close();
      context.current = undefined;
    };
  }, []);
  const set = useRef(new Set<string>());
  const running = timers.filter((t) => !t.stoppedAt);
  const key = running.map((t) => t.id).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: only which timers run matters; the clock is asked once for each
  useEffect(() => {
    for (const id of set.current)
      if (!running.some((t) => t.id === id)) {
        worker.current?.postMessage({ id });
        set.current.delete(id);
      }
    for (const t of running) {
      if (set.current.has(t.id)) continue;
      const ms = leftMs({ startedMs: Date.parse(t.startedAt), seconds: t.seconds }, clock.now());
      set.current.add(t.id);
      if (ms > 0) worker.current?.postMessage({ id: t.id, ms });
    }
  }, [key]);
}
