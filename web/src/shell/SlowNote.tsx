import { useSyncExternalStore } from 'react';
import { isSlow, subscribeSlow } from '../data/slow.js';

/** Says that the server is waited for, while it is. */
export function SlowNote() {
  const slow = useSyncExternalStore(subscribeSlow, isSlow);
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 top-2 z-50 flex justify-center">
      {slow && (
        <p className="rounded-lg bg-ink px-4 py-2 text-note text-white shadow-lg">
          The server has not answered for five seconds. It is waited for; nothing is lost and nothing is sent twice.
        </p>
      )}
    </div>
  );
}
