/** What the browser's tab says: where one is, then whose program it is. */
export function PageTitle({ of }: { of: readonly string[] }) {
  return <title>{[...of, 'Radiant Arch'].join(' · ')}</title>;
}
