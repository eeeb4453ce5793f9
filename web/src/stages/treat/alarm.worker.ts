/** Counts for the page: a worker is not held up while the tab is in the background. */
const running = new Map<string, ReturnType<typeof setTimeout>>();

self.onmessage = ({ data }: MessageEvent<{ id: string; ms?: number }>) => {
  const before = running.get(data.id);
  if (before !== undefined) clearTimeout(before);
  running.delete(data.id);
  if (data.ms === undefined) return;
  running.set(
    data.id,
    setTimeout(() => {
      running.delete(data.id);
      self.postMessage(data.id);
    }, data.ms),
  );
};
