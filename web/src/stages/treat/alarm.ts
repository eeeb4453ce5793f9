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

const AGAIN_MS = 10_000;

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
  const running = timers.filter((t) => !t.stoppedAt);
  const latest = useRef({ running, clock });
  latest.current = { running, clock };
  const set = useRef(new Set<string>());
  const key = running.map((t) => t.id).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: which timers run is all that begins it anew
  useEffect(() => {
    const tell = () => {
      const now = latest.current;
      for (const id of set.current)
        if (!now.running.some((t) => t.id === id)) {
          worker.current?.postMessage({ id });
          set.current.delete(id);
        }
      for (const t of now.running) {
        const ms = leftMs({ startedMs: Date.parse(t.startedAt), seconds: t.seconds }, now.clock.now());
        set.current.add(t.id);
        if (ms > 0) worker.current?.postMessage({ id: t.id, ms });
      }
    };
    tell();
    // A worker counts by the device's steady clock, which may run a little off the one on the wall: it is told again.
    const again = setInterval(tell, AGAIN_MS);
    return () => clearInterval(again);
  }, [key]);
}
