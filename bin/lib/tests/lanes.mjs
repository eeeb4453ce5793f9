/** Seconds since a moment, for people. */
export const secondsSince = (begun) => ((Date.now() - begun) / 1000).toFixed(0);

/**
 * Runs steps side by side. What each says is kept apart and printed when it ends, so that two never run into each
 * other.
 * @param lanes name → work; work gets `hear`, which takes its output, and resolves to whether it went well
 * @returns names of those that failed
 */
export async function sideBySide(lanes) {
  const failed = [];
  await Promise.all(
    Object.entries(lanes).map(async ([name, work]) => {
      const begun = Date.now();
      let said = '';
      const hear = (chunk) => {
        said += chunk;
      };
      const well = await work(hear).catch((error) => {
        hear(`${error.message}\n`);
        return false;
      });
      if (!well) failed.push(name);
      process.stdout.write(`\n── ${name}: ${well ? 'passed' : 'FAILED'} after ${secondsSince(begun)} s\n${said}`);
    }),
  );
  return failed;
}
