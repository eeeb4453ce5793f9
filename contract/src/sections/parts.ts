type Plain = Readonly<Record<string, unknown>>;

/**
 * How the parts of a content are put together when two people have changed it: as one value; as a set; as a list of
 * named entries; or field by field.
 */
export type Parts =
  | { readonly as: 'value' }
  | { readonly as: 'set' }
  | { readonly as: 'list'; readonly name: (entry: Plain) => string; readonly entry: Parts }
  | {
      readonly as: 'fields';
      readonly forms: Readonly<Record<string, Parts>>;
      readonly together: readonly (readonly string[])[];
    };

/** One value: half of one and half of another would be a third that nobody made. */
export const VALUE: Parts = { as: 'value' };
export const SET: Parts = { as: 'set' };
/** A list whose entries are known by a name. */
export const list = (name: (entry: Plain) => string, entry: Parts = VALUE): Parts => ({ as: 'list', name, entry });
/**
 * @param together groups of fields that are one value once the first of them has changed: what stands on a photograph
 * goes with it
 */
export const fields = (forms: Readonly<Record<string, Parts>>, ...together: (readonly string[])[]): Parts => ({
  as: 'fields',
  forms,
  together,
});
/** The name of an entry by some of its fields. */
export const by =
  (...keys: string[]) =>
  (entry: Plain) =>
    JSON.stringify(keys.map((k) => entry[k]));
