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
  /** What each of them does, where it is more than one; else what `does` says. */
  readonly each?: readonly string[];
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

/** One thing that a key does now. */
export interface KeyAct {
  /** Knows it again: by what it does and the key that it has at first. */
  readonly id: string;
  readonly name: string;
  /** The key that it has at first, and the one that it has now. */
  readonly first: string;
  readonly now: string;
  readonly hotkey: Hotkey;
}

/** What a person has made of the keys, in this browser. */
interface OwnKeys {
  /** Keys without Ctrl or Alt do nothing; whoever speaks to the machine, or rests a hand on the keys, wants that. */
  readonly singleOff: boolean;
  readonly own: Readonly<Record<string, string>>;
}

const STORE = 'radiant-keys';
const NO_OWN: OwnKeys = { singleOff: false, own: {} };
let ownKeys: OwnKeys | undefined;

function ownOnes(): OwnKeys {
  try {
    ownKeys ??= { ...NO_OWN, ...(JSON.parse(localStorage.getItem(STORE) ?? '{}') as Partial<OwnKeys>) };
  } catch {
    ownKeys = NO_OWN;
  }
  return ownKeys;
}

function setOwn(next: OwnKeys): void {
  ownKeys = next;
  try {
    localStorage.setItem(STORE, JSON.stringify(next));
  } catch {
    // A browser that keeps nothing has them until the page is left.
  }
  // A new list tells whoever shows the keys.
  change([...groups]);
}

export const isHotkey = (k: Hotkey | KeyWords): k is Hotkey => 'run' in k;

/** What the keys of a hotkey do, one by one. */
export function actsOf(k: Hotkey): KeyAct[] {
  return k.on.map((first, i) => {
    const name = k.each?.[i] ?? k.does;
    const id = `${first} ${name}`;
    return { id, name, first, now: ownOnes().own[id] ?? first, hotkey: k };
  });
}

/** Everything that a key does now, in the order in which keys are looked up. */
export const actsNow = (): KeyAct[] => inOrder().filter(isHotkey).flatMap(actsOf);

/** Whether a key is pressed without Ctrl or Alt and writes a letter, digit or sign. */
export const isSingle = (key: string): boolean => key.length === 1;

/** What browsers and systems do with a key themselves. */
const TAKEN =
  /^(mod\+(shift\+)?[acfhijlnopqrstuvwx0-9+=-]|mod\+(tab|enter)|alt\+(f4|arrow.*|home|tab|[defv])|f\d+|tab|shift\+tab|enter| |escape|delete|backspace|arrow.*|shift\+arrow.*|page.*|home|end|control|shift|alt|meta|dead|unidentified)$/;

/** Why a key can't be given to an act; nothing where it can. */
export function refusedKey(act: KeyAct, key: string): string | undefined {
  if (key === act.first) return undefined;
  if (TAKEN.test(key)) return `${keyLabel(key)} is the browser’s, or moves the focus; take another.`;
  const other = actsNow().find((a) => a.id !== act.id && a.now === key);
  return other && `${keyLabel(key)} does “${other.name}”; take another, or change that one first.`;
}

/** Gives an act another key. @throws Error with the sentence of `refusedKey` */
export function giveKey(act: KeyAct, key: string): void {
  const why = refusedKey(act, key);
  if (why) throw new Error(why);
  const { [act.id]: _, ...rest } = ownOnes().own;
  setOwn({ ...ownOnes(), own: key === act.first ? rest : { ...rest, [act.id]: key } });
}

/** All keys as they were at first. */
export const firstKeys = (): void => setOwn({ ...ownOnes(), own: {} });

export const setSingleOff = (singleOff: boolean): void => setOwn({ ...ownOnes(), singleOff });

const LABELS: Readonly<Record<string, string>> = {
  mod: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  escape: 'Esc',
  pageup: 'PageUp',
  pagedown: 'PageDown',
  delete: 'Delete',
  ' ': 'Space',
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  '-': '−',
};

/** A key as people write it: `Ctrl Z`. */
export function keyLabel(key: string): string {
  if (key === '+') return key;
  return key
    .split('+')
    .map((p) => LABELS[p] ?? (p.length === 1 ? p.toUpperCase() : p))
    .join(' ');
}

/** What a key that stands on the screen is called now, by the label that it has at first; nothing while it is off. */
export function useShownKey(): (label: string) => string | undefined {
  const { singleOff } = useOwnKeys();
  return (label) => {
    const act = actsNow().find((a) => keyLabel(a.first) === label);
    if (!act) return label;
    return singleOff && isSingle(act.now) ? undefined : keyLabel(act.now);
  };
}

/** What a person has made of the keys; follows changes of the keys too. */
export function useOwnKeys(): OwnKeys {
  useKeyList();
  return ownOnes();
}

function press(e: KeyboardEvent): void {
  if (e.defaultPrevented || inDialog(e)) return;
  const pressed = keyOf(e);
  const typing = isTyping(e);
  if (isSingle(pressed) && ownOnes().singleOff) return;
  for (const { now, first, hotkey: k } of actsNow()) {
    if (now !== pressed || k.off || (typing && !k.whileTyping?.(e))) continue;
    e.preventDefault();
    k.run(first, e);
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
export function useKeyList(): readonly (Hotkey | KeyWords)[] {
  const now = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => groups,
  );
  return LAYERS.flatMap((layer) => now.filter((g) => g.layer === layer)).flatMap((g) => g.keys());
}
