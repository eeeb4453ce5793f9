import { guessView, VIEW_IDS } from '@radiant/core';
import { photograph, RECIPES, type RecipeName, VIEWS } from '@radiant/standins';
import { DAY, rotating, share } from '../../core/test/trials/rotating.js';
import { patientOf } from './render.js';

const NAMES = Object.keys(RECIPES) as RecipeName[];
/** As the stage hands pictures to it. */
const WIDTH_PX = 160;

/** A hand of its own every day and picture: between −1 and 1. */
const hand = (k: number) => Math.sin(DAY * 12.9898 + k * 78.233);

describe.each(rotating(NAMES, 1))(`the guess of a view, %s (${share})`, (who) => {
  it.each(VIEW_IDS)('%s, held by hand, is guessed for what it is', (view) => {
    const { camera, expression } = VIEWS[view];
    const k = VIEW_IDS.indexOf(view);
    const { rollDeg = 0, pitchDeg = 0, centreX = 0, centreZ = 0, fieldMm, exposure = 1 } = camera;
    const setting = {
      ...camera,
      widthPx: WIDTH_PX,
      heightPx: Math.round((WIDTH_PX * camera.heightPx) / camera.widthPx),
      rollDeg: rollDeg + 3 * hand(k),
      pitchDeg: pitchDeg + 4 * hand(k + 10),
      centreX: centreX + 0.04 * fieldMm * hand(k + 20),
      centreZ: centreZ + 0.03 * fieldMm * hand(k + 30),
      fieldMm: fieldMm * (1 + 0.08 * hand(k + 40)),
      exposure: exposure * (1 + 0.1 * hand(k + 50)),
    };
    const { rgba, width, height } = photograph(patientOf(who), setting, expression);
    expect(guessView(rgba, width, height)?.view).toBe(view);
  });
});

describe('what is no view of a mouth', () => {
  const filled = (colour: (x: number, y: number) => readonly [number, number, number]) => {
    const rgba = new Uint8ClampedArray(4 * 90 * 60);
    for (let i = 0; i < 90 * 60; i++) rgba.set([...colour(i % 90, Math.floor(i / 90)), 255], 4 * i);
    return rgba;
  };
  it.each<[string, (x: number, y: number) => readonly [number, number, number]]>([
    ['a grey card', () => [128, 128, 128]],
    ['a blue sky', (_, y) => [90, 130, 200 + y / 2]],
    ['a sheet of paper', () => [250, 249, 247]],
    ['darkness', () => [3, 3, 4]],
    ['noise of every colour', (x, y) => [(x * 73 + y * 151) % 256, (x * 199 + y * 37) % 256, (x * 11 + y * 97) % 256]],
  ])('%s is not guessed at', (_, colour) => {
    expect(guessView(filled(colour), 90, 60)).toBeUndefined();
  });
});
