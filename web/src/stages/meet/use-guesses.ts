import type { CaseFile } from '@radiant/contract';
import { guessView, type ViewGuess } from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';

/** Wide enough for the rules, which count colours, px. */
const WIDTH_PX = 240;

/** What view each photograph looks like, by its address; null where no rule speaks, nothing while it is looked at. */
export function useGuesses(photos: readonly CaseFile[]): ReadonlyMap<string, ViewGuess | null> {
  const { detail } = useCase();
  const asked = useRef(new Set<string>());
  const [guesses, setGuesses] = useState<ReadonlyMap<string, ViewGuess | null>>(new Map());
  const urls = photos.map((f) => photoUrl(detail.id, f, 'thumbnail')).join('\n');
  useEffect(() => {
    for (const url of urls.split('\n').filter((u) => u && !asked.current.has(u))) {
      asked.current.add(url);
      void guessAt(url).then((guess) => setGuesses((all) => new Map(all).set(url, guess)));
    }
  }, [urls]);
  return guesses;
}

async function guessAt(url: string): Promise<ViewGuess | null> {
  const image = new Image();
  image.src = url;
  try {
    await image.decode();
  } catch {
    return null;
  }
  const width = Math.min(WIDTH_PX, image.naturalWidth);
  const height = Math.round((width * image.naturalHeight) / image.naturalWidth);
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) return null;
  pen.drawImage(image, 0, 0, width, height);
  return guessView(pen.getImageData(0, 0, width, height).data, width, height) ?? null;
}
