import type { StepTimer } from '@radiant/contract';
import { leftMs } from '@radiant/core';
import { Timer as TimerIcon } from 'lucide-react';
import type { ChairClock } from '../../data/chair-clock.js';

/** Minutes and seconds; what is over counts on with a plus. */
export function timeWords(ms: number): string {
  const s = Math.abs(ms >= 0 ? Math.ceil(ms / 1000) : Math.floor(ms / 1000));
  const text = `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
  return ms < 0 && s > 0 ? `+${text}` : text;
}

/** A time to keep, as one says it. */
export const spanWords = (s: number): string => (s >= 120 && s % 60 === 0 ? `${s / 60} min` : `${s} s`);

/** The times that run, each with how much is left. What is over flashes until somebody has seen it. */
export function Timers({
  timers,
  clock,
  stop,
}: {
  timers: readonly StepTimer[];
  clock: ChairClock;
  stop: ((id: string) => void) | undefined;
}) {
  const running = timers.filter((t) => !t.stoppedAt);
  if (running.length === 0) return null;
  const now = clock.now();
  return (
    <ul className="flex flex-wrap gap-2" aria-label="Times that run">
      {running.map((t) => {
        const left = leftMs({ startedMs: Date.parse(t.startedAt), seconds: t.seconds }, now);
        const over = left <= 0;
        return (
          <li key={t.id}>
            <button
              type="button"
              className={`flex min-h-12 items-center gap-3 rounded-xl px-4 py-2 text-left ${over ? 'animate-pulse bg-stop text-white motion-reduce:animate-none' : 'bg-plum-soft'}`}
              aria-label={`${t.label}: ${over ? 'over' : `${timeWords(left)} left`}, stop`}
              disabled={!stop}
              onClick={() => stop?.(t.id)}
            >
              <TimerIcon size={20} aria-hidden />
              <span className="text-head font-semibold tabular-nums">{timeWords(left)}</span>
              <span className="max-w-[22ch] truncate text-note">{t.label}</span>
              <span className="text-note font-semibold underline">{over ? 'seen' : 'stop'}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
