import type { Jaw } from '@radiant/core';
import { useCallback, useEffect, useState } from 'react';
import type { View, ViewName } from '../../bench/arch-eye.js';

/** In the closed bite both arches are looked at from between them; what bites, from the side of the other arch. */
const eyeInBite = (name: ViewName, jaw: Jaw): Jaw =>
  name === 'front' || name === 'right' || name === 'left' ? 'upper' : jaw;

/** From where the arch is looked at, and whether the jaw across is shown in the bite. */
export function useLook(jaw: Jaw, inBite: boolean) {
  const [view, setView] = useState<View>({ name: 'front', jaw, turn: 0 });
  const [acrossShown, showAcross] = useState(true);
  const look = useCallback(
    (name: ViewName) => {
      setView((v) => ({ name, jaw: inBite ? eyeInBite(name, jaw) : jaw, turn: v.turn + 1 }));
      // The other jaw would stand before what is looked at.
      showAcross(name !== 'above' && name !== 'behind');
    },
    [jaw, inBite],
  );
  // In the bite both jaws are there: who picks a tooth of the other one wants to look on from where they are.
  useEffect(() => {
    setView((v) => {
      const before = inBite ? eyeInBite(v.name, v.jaw) : jaw;
      return v.jaw === before ? v : { ...v, jaw: before, turn: v.turn + 1 };
    });
  }, [jaw, inBite]);
  return { view, look, acrossShown, showAcross };
}
