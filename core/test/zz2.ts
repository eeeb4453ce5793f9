import { writeFileSync } from 'node:fs';
import { crown, type Fdi } from '@radiant/core';
import { sagittal, TEXTBOOK } from './trials/anatomy.js';

const extra: Record<string, readonly [Fdi, number, number]> = {
  'upper first molar': [16, 7.5, 10],
  'upper second molar': [17, 7, 9],
  'lower first molar': [46, 7.5, 11],
  'lower second molar': [47, 7, 10.5],
};
const out = Object.entries({ ...TEXTBOOK, ...extra }).map(([name, t]) => {
  const c = crown(t[0], { lengthMm: t[1], widthMm: t[2], facialVolumeMm: 0 });
  return {
    name,
    p: [...c.mesh.positions].map((v) => +v.toFixed(3)),
    t: [...c.mesh.triangles],
    s: sagittal(c).map((l) => [...l.points]),
    s2: sagittal(c, t[2] * 0.32).map((l) => [...l.points]),
  };
});
writeFileSync('/tmp/crowns.json', JSON.stringify(out));
