import { useEffect, useRef, useSyncExternalStore } from 'react';

/** What is pressed or done, and what it does: a line of the list on “?”. */
export interface KeyWords {
  /** As it is listed. */
  readonly keys: string;
  readonly does: string;
}

/** A key that does something while whoever names it is on the screen. */
export interface Hotkey extends KeyWords {
  /**
   * Keys as the browser names them, in lower case, with `mod+`, `alt+` and `shift+` before them in this order; `mod` is
   * Ctrl or ⌘.
   */
  readonly on: readonly string[];
  readonly run: (key: string, e: KeyboardEvent) => void;
  /** Whether it works in a field that is being written in. */
  readonly whileTyping?: (e: KeyboardEvent) => boolean;
  /** Only now and then; it is listed all the same. */
  readonly off?: boolean;
}

/** Where a key belongs: a tool's comes before a stage's, a stage's before one that works everywhere. */
const LAYERS = ['tool', 'stage', 'everywhere'] as const;
export type Layer = (typeof LAYERS)[number];

interface Group {
  readonly layer: Layer;
  readonly keys: () => readonly (Hotkey | KeyWords)[];
}

// There is one keyboard: whoever is on the screen says here which of its keys are theirs.
let groups: readonly Group[] = [];
const listeners = new Set<() => void>();

function change(next: readonly Group[]): void {
  if (groups.length === 0 && next.length > 0) window.addEventListener('keydown', press);
  if (groups.length > 0 && next.length === 0) window.removeEventListener('keydown', press);
  groups = next;
  for (const l of listeners) l();
}

const inOrder = (): readonly (Hotkey | KeyWords)[] =>
  LAYERS.flatMap((layer) => groups.filter((g) => g.layer === layer)).flatMap((g) => g.keys());

/** The key with what is held down with it. Shift is part of a letter or sign already. */
export function keyOf(e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>): string {
  const mod = e.ctrlKey || e.metaKey;
  const shift = e.shiftKey && (mod || e.key.length > 1);
  return `${mod ? 'mod+' : ''}${e.altKey ? 'alt+' : ''}${shift ? 'shift+' : ''}${e.key.toLowerCase()}`;
}

/** Whether a key press belongs to a field that is being written in. */
export function isTyping(e: KeyboardEvent): boolean {
  const t = e.target as HTMLElement | null;
  // A box to tick takes no letters, a slider only the keys that move it.
  const type = t?.tagName === 'INPUT' ? (t as HTMLInputElement).type : '';
  if (type === 'checkbox' || type === 'radio') return e.key === ' ';
  if (type === 'range') return /^(Arrow|Page|Home|End)/.test(e.key);
  return !!t && (t.tagName === 'INPUT' || t.tagName === 'TEXTAREA' || t.tagName === 'SELECT' || t.isContentEditable);
}

/** Nothing behind a dialog hears keys. */
const inDialog = (e: KeyboardEvent): boolean =>
  !!(e.target as HTMLElement | null)?.closest?.('[role=dialog], [role=alertdialog]');

function press(e: KeyboardEvent): void {
  if (e.defaultPrevented || inDialog(e)) return;
  const pressed = keyOf(e);
  const typing = isTyping(e);
  for (const k of inOrder()) {
    if (!('run' in k) || k.off || !k.on.includes(pressed) || (typing && !k.whileTyping?.(e))) continue;
    e.preventDefault();
    k.run(pressed, e);
    return;
  }
}

/**
 * Keys of whatever is on the screen; they go with it, and stand in the list on “?” as long. What is done with the mouse
 * is listed too.
 * @param keys in the order in which they are listed; may be made anew each time
 */
export function useHotkeys(layer: Layer, keys: readonly (Hotkey | KeyWords)[]): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const group: Group = { layer, keys: () => latest.current };
    change([...groups, group]);
    return () => change(groups.filter((g) => g !== group));
  }, [layer]);
}

/** Everything that can be pressed now. */
export function useKeyList(): readonly KeyWords[] {
  const now = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => groups,
  );
  return LAYERS.flatMap((layer) => now.filter((g) => g.layer === layer)).flatMap((g) => g.keys());
}
