/** Tells the other tabs of this browser that somebody signed in or out, so that none of them waits in vain. */
const channel = globalThis.BroadcastChannel && new BroadcastChannel('radiant-session');

export function tellOtherTabs(): void {
  channel?.postMessage('changed');
}

/** @returns how to hear no more of it */
export function hearOfSession(heard: () => void): () => void {
  channel?.addEventListener('message', heard);
  return () => channel?.removeEventListener('message', heard);
}
