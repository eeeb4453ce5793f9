import { kindOf, placeOf } from '../src/inbox/naming.js';

const CASES = [
  { id: 'a', name: 'Avocet' },
  { id: 'b', name: 'Avocet North' },
  { id: 'd', name: 'Dunlin' },
  { id: 'e', name: 'Dunlin' },
];

it.each([
  ['Avocet - close smile.jpg', undefined, 'a'],
  ['avocet_front.JPG', undefined, 'a'],
  ['Avocet North, front.jpg', undefined, 'b'],
  ['Avocetta.jpg', undefined, undefined],
  ['IMG_0042.jpg', undefined, undefined],
  ['simulated camera/Avocet - front.jpg', 'simulated camera', 'a'],
  ['camera two/avocet/IMG_0042.jpg', 'camera two', 'a'],
  ['Avocet/camera two/IMG_0042.jpg', 'camera two', 'a'],
  ['camera two/IMG_0042.jpg', 'camera two', undefined],
  ['Dunlin - front.jpg', undefined, undefined],
])('%s comes from %s and belongs to %s', (path, device, caseId) =>
  expect(placeOf(path, CASES)).toEqual({ device, caseId }),
);

it('a file is known by its first bytes, whatever its name says', () => {
  const jpeg = Uint8Array.of(0xff, 0xd8, 0xff, 0xe0);
  const png = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d);
  expect(kindOf('a.bin', jpeg)).toBe('photo');
  expect(kindOf('a.stl', png)).toBe('photo');
  expect(kindOf('a.txt', new TextEncoder().encode('ply\nformat ascii 1.0\n'))).toBe('scan');
  expect(kindOf('upper.STL', new Uint8Array(84))).toBe('scan');
  expect(kindOf('notes.txt', new TextEncoder().encode('hello'))).toBeUndefined();
  expect(kindOf('empty.jpg', new Uint8Array())).toBeUndefined();
});
