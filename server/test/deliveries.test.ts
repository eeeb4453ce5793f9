import { keysOf, PHOTO_VIEWS, readFileName } from '@radiant/contract';
import { RECIPES, shadeReadings } from '@radiant/standins';
import { ALL, deviceOf, FIRST, fileOf, viewOf } from '../src/devices/deliveries.js';
import { DEMO_RECORDS } from '../src/devices/demo-records.js';
import { placeOf } from '../src/inbox/naming.js';

const AT = '2026-11-20T09:10:00.000Z';
const CASES = Object.keys(RECIPES).map((name) => ({ id: name, name }));

it('every sample case gets all ten views and a scan of each jaw from before, and no file twice', () => {
  for (const { name } of CASES) {
    const own = ALL.filter((d) => d.patient === name && d.state === 'before').map((d) => d.what);
    expect(own.filter((w) => w === 'scan-stl' || w === 'scan-ply')).toHaveLength(1);
    expect(own.filter((w) => w === 'scan-lower')).toHaveLength(1);
    expect([...own.filter((w) => !/^(scan|shade)-/.test(w))].sort()).toEqual([...keysOf(PHOTO_VIEWS)].sort());
  }
  expect(new Set(ALL.map(fileOf)).size).toBe(ALL.length);
  expect(ALL.slice(0, FIRST.length)).toEqual(FIRST);
});

it('all five states of the mouth and both scan formats occur', () => {
  expect(new Set(ALL.map((d) => d.state))).toEqual(new Set(['before', 'mock-up', 'prepared', 'provisional', 'final']));
  expect(ALL.some((d) => d.what === 'scan-ply')).toBe(true);
  for (const { name } of CASES)
    expect(
      ALL.filter((d) => d.patient === name && d.state === 'before' && d.what.startsWith('scan-whole')),
    ).toHaveLength(2);
  expect(ALL.filter((d) => d.state === 'prepared').map((d) => d.what)).toEqual(['scan-whole-upper', 'shade-stump']);
  expect(ALL.filter((d) => d.state === 'mock-up' && d.what.startsWith('scan-')).map(deviceOf)).toEqual([
    'simulated scanner',
    'simulated laboratory',
  ]);
});

it.each(ALL.map((d) => [fileOf(d), d] as const))('%s says its case, its view and its state to the inbox', (name, d) => {
  expect(placeOf(`${deviceOf(d)}/${name}`, CASES)).toEqual({ device: deviceOf(d), caseId: d.patient });
  expect(deviceOf(d)).toMatch(/^simulated /);
  const said = readFileName(name);
  expect(said.state).toBe(d.state);
  if (!/^(scan|shade)-/.test(d.what)) expect(said.view).toBe(d.what);
  // What is no photograph has no marks to be made on it.
  expect(viewOf(d) === undefined).toBe(/\.(stl|ply|csv)$/.test(name));
});

it('every table of the shade meter that is to come has a reading in it', () => {
  const tables = ALL.filter((d) => d.what === 'shade-tooth' || d.what === 'shade-stump');
  expect(tables.length).toBeGreaterThan(3);
  for (const d of tables)
    expect([d.patient, shadeReadings(d.patient, d.what === 'shade-tooth' ? 'tooth' : 'stump', AT).length > 0]).toEqual([
      d.patient,
      true,
    ]);
});

it('every sample case has a record with a wish and, where teeth are missing, says which', () => {
  for (const [name, record] of Object.entries(DEMO_RECORDS)) {
    expect(record.wish.length).toBeGreaterThan(5);
    expect(record.ageYears).toBeGreaterThan(15);
    const gone = (RECIPES[name as keyof typeof RECIPES].missing ?? []) as readonly number[];
    expect(record.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth)).toEqual([...gone]);
  }
});
