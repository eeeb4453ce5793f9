import { bounds, inspectMesh, type Mesh, mergeMeshes, type PrintCheck, printCheck, readStl, weld } from '@radiant/core';
import { strFromU8, unzipSync } from 'fflate';

/** What the simulated printer says of a file that it was sent. */
export interface PrinterAnswer {
  readonly printer: string;
  /** Bodies in the file, and its name for them. */
  readonly bodies: number;
  readonly title: string;
  /** Why it would not begin; empty where it would. */
  readonly refused: readonly string[];
  /** Nothing where the file holds no body that can be looked at. */
  readonly check?: PrintCheck;
}

/** It prints nothing and says so. */
export const PRINTER = { name: 'Simulated resin printer', plateMm: [144, 81], heightMm: 160 } as const;

/**
 * A printer that takes a file as a real one would: binary or text STL, which says no unit and is taken as millimetres,
 * or 3MF, whose unit is read. It knows nothing but the bytes.
 */
export function simulatedPrinter(file: Uint8Array): PrinterAnswer {
  const none = { printer: PRINTER.name, bodies: 0, title: '' };
  let read: { title: string; bodies: readonly Mesh[] };
  try {
    read = isZip(file) ? readThreeMf(file) : readStlBodies(file);
  } catch (error) {
    return { ...none, refused: [error instanceof Error ? error.message : 'The file can’t be read.'] };
  }
  const { title, bodies } = read;
  if (bodies.length === 0) return { ...none, title, refused: ['The file holds no body.'] };
  const mesh = mergeMeshes(bodies);
  const { min, max } = bounds(mesh);
  const [across, deep, tall] = [0, 1, 2].map((c) => (max[c as 0] as number) - (min[c as 0] as number)) as [
    number,
    number,
    number,
  ];
  const [plate, narrow] = PRINTER.plateMm;
  const open = bodies.filter((b) => inspectMesh(weld(b)).defects.has('open')).length;
  const sorted = [across, deep, tall].sort((a, b) => b - a) as [number, number, number];
  const refused = [
    ...(open > 0 ? [`${open} of its bodies ${open === 1 ? 'is' : 'are'} not closed.`] : []),
    ...(sorted[0] > PRINTER.heightMm || sorted[1] > plate || sorted[2] > narrow
      ? [
          `It is ${sorted.map((v) => v.toFixed(0)).join(' × ')} mm and does not fit on the plate. Is its unit millimetres?`,
        ]
      : []),
    ...(sorted[0] < 1 ? ['It is smaller than a millimetre. Is its unit millimetres?'] : []),
  ];
  return { printer: PRINTER.name, bodies: bodies.length, title, refused, check: printCheck(mesh) };
}

const isZip = (file: Uint8Array): boolean => file[0] === 0x50 && file[1] === 0x4b;

function readStlBodies(file: Uint8Array): { title: string; bodies: readonly Mesh[] } {
  // STL knows bodies only by what hangs together; for a printer all of it is one.
  const title = strFromU8(file.subarray(0, 80)).split('\0')[0]?.trim() ?? '';
  return { title, bodies: [weld(readStl(file.slice()).mesh)] };
}

/** Units of the 3MF Core Specification, mm each. */
const UNITS: Readonly<Record<string, number>> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

/** @throws Error with a sentence where it is no 3MF */
function readThreeMf(file: Uint8Array): { title: string; bodies: readonly Mesh[] } {
  const broken = (why: string) => new Error(`The 3MF file can’t be read: ${why}`);
  let parts: ReturnType<typeof unzipSync>;
  try {
    parts = unzipSync(file, { filter: ({ name }) => name.endsWith('.model') });
  } catch {
    throw broken('it is no package.');
  }
  const [own] = Object.values(parts);
  if (!own) throw broken('it holds no model.');
  const model = strFromU8(own);
  const unit = /<model[^>]*\bunit="([a-z]+)"/.exec(model)?.[1] ?? 'millimeter';
  const mm = UNITS[unit];
  if (mm === undefined) throw broken(`its unit ${unit} is none.`);
  const bodies = [...model.matchAll(/<object\b[^>]*>.*?<\/object>/gs)].map(([object]): Mesh => {
    const numbers = (tag: string, names: readonly string[]): number[] =>
      [...object.matchAll(new RegExp(`<${tag}\\b([^>]*)/>`, 'g'))].flatMap(([, own]) =>
        names.map((n) => Number(new RegExp(`\\b${n}="([^"]*)"`).exec(own ?? '')?.[1])),
      );
    return {
      positions: Float64Array.from(numbers('vertex', ['x', 'y', 'z']), (v) => v * mm),
      triangles: Uint32Array.from(numbers('triangle', ['v1', 'v2', 'v3'])),
    };
  });
  const title = /<metadata name="Title">([^<]*)</.exec(model)?.[1] ?? '';
  return { title, bodies };
}
