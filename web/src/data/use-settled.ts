import { useEffect, useState } from 'react';

/** A value once it has stood still for so long: what is worked out of it is not worked out for each move of a hand. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
