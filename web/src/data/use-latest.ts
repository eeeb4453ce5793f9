import { useRef } from 'react';

/**
 * A handle that always reaches the newest of what changes at every render, for parts that are drawn again only when
 * what they show changes: they call through it and never work on what was.
 */
export function useLatest<T>(value: T): { readonly current: T } {
  const ref = useRef(value);
  ref.current = value;
  return ref;
}
