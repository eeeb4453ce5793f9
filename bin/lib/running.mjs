import { existsSync, linkSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * What runs on a data folder, by process number and the moment at which the process began: a number alone is given to
 * another process after a while. Kept as DIR/running-NAME.json, so that the next start finds what this one left behind.
 */
const fileOf = (dataDir, name) => join(dataDir, `running-${name}.json`);

/**
 * When a process began, in the kernel's ticks since boot; undefined when there is none or it only waits to be
 * collected.
 */
export function begunAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name in brackets may hold anything; the fields after it are counted from the last bracket.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return fields[0] === 'Z' ? undefined : Number(fields[19]);
  } catch {
    return undefined;
  }
}

const described = (pid) => JSON.stringify({ pid, begun: begunAt(pid) });

export function record(dataDir, name, pid) {
  const draft = `${fileOf(dataDir, name)}.${process.pid}`;
  writeFileSync(draft, described(pid), { mode: 0o600 });
  renameSync(draft, fileOf(dataDir, name));
}

export function forget(dataDir, name) {
  rmSync(fileOf(dataDir, name), { force: true });
}

/** The recorded process, if it is still the one that was recorded. */
export function recorded(dataDir, name) {
  return living(fileOf(dataDir, name));
}

function living(file) {
  if (!existsSync(file)) return undefined;
  try {
    const { pid, begun } = JSON.parse(readFileSync(file, 'utf8'));
    return Number.isInteger(pid) && begun !== undefined && begunAt(pid) === begun ? pid : undefined;
  } catch {
    return undefined;
  }
}

/**
 * Takes a data folder for this process. Of two starts at the same moment one gets it.
 * @returns undefined when it was taken, else the number of the process that has it
 */
export function takeFolder(dataDir) {
  const file = fileOf(dataDir, 'start');
  const own = `${file}.${process.pid}`;
  writeFileSync(own, described(process.pid), { mode: 0o600 });
  try {
    for (let tries = 0; tries < 10; tries++) {
      try {
        linkSync(own, file);
        return undefined;
      } catch (error) {
        if (error.code !== 'EEXIST') throw error;
      }
      const holder = living(file);
      if (holder === process.pid) return undefined;
      if (holder) return holder;
      // Left by a start that died. Should another have taken the folder since it was looked at, that one gets it back.
      const aside = `${file}.left-${process.pid}`;
      try {
        renameSync(file, aside);
      } catch {
        continue;
      }
      const other = living(aside);
      if (other) linkSync(aside, file);
      rmSync(aside, { force: true });
      if (other) return other;
    }
    throw new Error(`The folder ${dataDir} can’t be taken.`);
  } finally {
    rmSync(own, { force: true });
  }
}

/** Ends the recorded process, politely first, and waits until it is gone. */
export async function endRecorded(dataDir, name, ms = 30_000) {
  const pid = recorded(dataDir, name);
  if (!pid) return forget(dataDir, name);
  console.log(`ending the ${name} that an earlier start left behind (process ${pid})`);
  const begun = begunAt(pid);
  process.kill(pid, 'SIGTERM');
  for (let waited = 0; begunAt(pid) === begun; waited += 100) {
    if (waited === ms) process.kill(pid, 'SIGKILL');
    if (waited > 2 * ms) throw new Error(`The ${name} of an earlier start (process ${pid}) can’t be ended.`);
    await new Promise((r) => setTimeout(r, 100));
  }
  forget(dataDir, name);
}
