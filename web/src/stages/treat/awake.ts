import { useEffect } from 'react';

/** Keeps the screen on while something runs; a browser that can't lets it sleep as the device is set. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let left = false;
    const ask = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (l) => {
          if (left) void l.release();
          else lock = l;
        },
        () => undefined,
      );
    };
    ask();
    // It is lost whenever the tab is hidden.
    document.addEventListener('visibilitychange', ask);
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [on]);
}
