import { createContext, type ReactNode, useCallback, useContext, useState } from 'react';

/** What was typed and not sent, by the place that it was typed in. */
type Texts = Map<string, unknown>;

const UnsentContext = createContext<Texts>(new Map());

/** Holds what a person has typed and not sent; it ends when they sign out, and never leaves the page's memory. */
export function UnsentProvider({ children }: { children: ReactNode }) {
  const [texts] = useState<Texts>(() => new Map());
  return <UnsentContext.Provider value={texts}>{children}</UnsentContext.Provider>;
}

/** What is unsent of one place: a dialog that was closed by Esc or by a slip has it again when it is opened. */
export interface Unsent<T> {
  readonly kept: T | undefined;
  readonly keep: (value: T) => void;
  /** After it was sent. */
  readonly drop: () => void;
}

/** @param place names the field or form, with the number of what it is about */
export function useUnsent<T>(place: string | undefined): Unsent<T> {
  const texts = useContext(UnsentContext);
  const keep = useCallback((value: T) => void (place && texts.set(place, value)), [texts, place]);
  const drop = useCallback(() => void (place && texts.delete(place)), [texts, place]);
  return { kept: place ? (texts.get(place) as T | undefined) : undefined, keep, drop };
}
