/** An answer that takes longer is told of, ms. House value. */
const SLOW_MS = 5000;

let late = 0;
const listeners = new Set<() => void>();

/** Whether something was asked of the server so long ago that people should know that it is waited for. */
export const isSlow = (): boolean => late > 0;

export function subscribeSlow(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function count(by: 1 | -1): void {
  const before = isSlow();
  late += by;
  if (before !== isSlow()) for (const l of listeners) l();
}

/** Waits for an answer of the server, and lets it be known when it takes long. Nothing is sent again. */
export async function watched<T>(answer: Promise<T>): Promise<T> {
  let told = false;
  const timer = setTimeout(() => {
    told = true;
    count(1);
  }, SLOW_MS);
  try {
    return await answer;
  } finally {
    clearTimeout(timer);
    if (told) count(-1);
  }
}
