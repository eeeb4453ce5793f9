/** Everything is tried under `bin/test --all`. */
export const ALL = process.env.RADIANT_TEST_ALL === '1';

/** Which day's share is tried: today's, or the one that `bin/test --day N` asks for again. */
export const DAY = Number(process.env.RADIANT_TEST_DAY ?? Math.floor(Date.now() / 86_400_000));

/** How a share is named in a test's title, so that a failing one can be run again. */
export const share = ALL ? 'all of them' : `the share of --day ${DAY}`;

/** So many of a list of trials, others each day, every one of them within a few days; the whole list under --all. */
export function rotating<T>(list: readonly T[], take: number): readonly T[] {
  if (ALL || take >= list.length) return list;
  const parts = Math.ceil(list.length / take);
  const part = DAY % parts;
  return list.slice(part * take, (part + 1) * take);
}
