import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { type CameraSetting, type Expression, type RecipeName, VIEWS, type ViewName } from '@radiant/standins';

/** A photograph rendered by the built stand-ins; needs `tsc -b` before. */
export function rendered(
  who: RecipeName | number,
  view: ViewName,
  setting: Partial<CameraSetting> = {},
  expression: Partial<Expression> = {},
): { rgba: Buffer; camera: CameraSetting } {
  const script = join(process.cwd(), 'standins', 'test', 'render-process.mjs');
  const rgba = execFileSync(process.execPath, [script, String(who), view, JSON.stringify(setting), JSON.stringify(expression)], { maxBuffer: 1 << 28 });
  return { rgba, camera: { ...VIEWS[view].camera, ...setting } };
}
