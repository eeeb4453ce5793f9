/** The little of a browser that keys need. */
class FakeStorage {
  readonly items = new Map<string, string>();
  getItem = (k: string) => this.items.get(k) ?? null;
  setItem = (k: string, v: string) => void this.items.set(k, v);
}
const storage = new FakeStorage();
Object.assign(globalThis, { localStorage: storage });

export {};

const { actsOf, giveKey, keyLabel, keyOf, refusedKey } = await import('../src/ui/hotkeys.js');

const pressed: string[] = [];
const views = {
  keys: 'F R',
  does: 'view from front, right',
  on: ['f', 'r'],
  each: ['view from the front', 'view from the right'],
  run: (key: string) => void pressed.push(key),
};
const act = (i: number) => actsOf(views)[i] as ReturnType<typeof actsOf>[number];
const event = (key: string, held: Partial<Record<'ctrlKey' | 'altKey' | 'shiftKey', boolean>> = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
});

it('a key is named with what is held down with it; shift belongs to a letter or sign already', () => {
  expect(keyOf(event('z', { ctrlKey: true }))).toBe('mod+z');
  expect(keyOf(event('Z', { ctrlKey: true, shiftKey: true }))).toBe('mod+shift+z');
  expect(keyOf(event('?', { shiftKey: true }))).toBe('?');
  expect(keyOf(event('ArrowLeft', { shiftKey: true }))).toBe('shift+arrowleft');
});

it.each([
  ['mod+shift+z', 'Ctrl Shift Z'],
  ['alt+1', 'Alt 1'],
  ['pageup', 'PageUp'],
  ['+', '+'],
  ['-', '−'],
])('%s is written %s', (key, label) => {
  expect(keyLabel(key)).toBe(label);
});

it('an act has the key that a person gives it, kept in the browser, and its first one back', () => {
  expect(act(0)).toMatchObject({ first: 'f', now: 'f', name: 'view from the front' });
  giveKey(act(0), 'v');
  expect(act(0)).toMatchObject({ first: 'f', now: 'v' });
  expect(JSON.parse(storage.items.get('radiant-keys') ?? '').own).toEqual({ 'f view from the front': 'v' });
  giveKey(act(0), 'f');
  expect(act(0).now).toBe('f');
  expect(JSON.parse(storage.items.get('radiant-keys') ?? '').own).toEqual({});
});

it.each(['mod+t', 'mod+w', 'mod+l', 'mod+f', 'f5', 'tab', 'enter', 'arrowup', ' ', 'alt+f4'])(
  '%s is not given away: the browser or the focus has it',
  (key) => {
    expect(refusedKey(act(0), key)).toMatch(/take another/);
    expect(() => giveKey(act(0), key)).toThrow(/take another/);
    expect(act(0).now).toBe('f');
  },
);
