import { type Clock, lookAgain, startClock, timeOf } from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import { api } from './api.js';

const TICK_MS = 250;
/** So often the server is asked for the time, ms. */
const ASK_MS = 60_000;

/** The time that all screens at a chair share. */
export interface ChairClock {
  /** ms since 1970 */
  readonly now: () => number;
  /** Somebody has set this device's clock back: it is told, and timers go on. */
  readonly setBack: boolean;
}

const look = () => ({ wallMs: Date.now(), steadyMs: performance.now() });

/** The server's time and half of the way there and back. Nothing while it can't be reached. */
async function serverTime(): Promise<number | undefined> {
  const asked = performance.now();
  try {
    const { now } = await api.get<{ now: number }>('/health/clock');
    return now + (performance.now() - asked) / 2;
  } catch {
    return undefined;
  }
}

/** @param runs whether something is shown that moves with the time: the page is drawn anew four times a second then */
export function useChairClock(runs: boolean): ChairClock {
  const clock = useRef<Clock>(startClock(look()));
  const [setBack, setSetBack] = useState(false);
  const [, tick] = useState(0);
  useEffect(() => {
    let on = true;
    let told = false;
    const ask = async () => {
      const server = await serverTime();
      if (!on) return;
      clock.current = lookAgain(clock.current, look(), server);
    };
    void ask();
    const asking = setInterval(ask, ASK_MS);
    const looking = setInterval(() => {
      clock.current = lookAgain(clock.current, look());
      if (clock.current.setBackMs !== undefined && !told) {
        told = true;
        setSetBack(true);
        void ask();
      }
      if (runs) tick((n) => n + 1);
    }, TICK_MS);
    return () => {
      on = false;
      clearInterval(asking);
      clearInterval(looking);
    };
  }, [runs]);
  return {
    now: () => {
      clock.current = lookAgain(clock.current, look());
      return timeOf(clock.current);
    },
    setBack,
  };
}
