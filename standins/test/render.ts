import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { type CameraSetting, RETRACTED_FRONT } from '@radiant/standins';

/** A photograph rendered by the built stand-ins; needs `tsc -b` before. */
export function rendered(who: 'avocet' | number, setting: Partial<CameraSetting>): { rgba: Buffer; camera: CameraSetting } {
  const camera = { ...RETRACTED_FRONT, ...setting };
  const rgba = execFileSync(process.execPath, [join(process.cwd(), 'standins', 'test', 'render-process.mjs'), String(who), JSON.stringify(setting)], {
    maxBuffer: 1 << 28,
  });
  return { rgba, camera };
}
