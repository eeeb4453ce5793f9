import type { SectionName } from '@radiant/contract';
import { type Fdi, isUpper, LOWER_TEN, UPPER_TEN } from '@radiant/core';
import { type ComponentType, createContext, useContext } from 'react';

/** What a stage is: everything that the frame needs to know of it. Its keys are told by what it puts on the screen. */
export interface StageDefinition {
  /** A verb; its address too. */
  readonly name: string;
  /** The question that it answers. */
  readonly question: string;
  /** What it writes; a stage may write nothing. */
  readonly section?: SectionName;
  /** Which teeth can be chosen on it, of the jaw of the chosen one; all others of the row are shown pale. */
  readonly teeth: (chosen: Fdi, planned: readonly Fdi[]) => readonly Fdi[];
  /** Whether it stands on the contour, so that the head says which one that is. */
  readonly onContour?: boolean;
  readonly element: ComponentType;
}

/** The planned teeth of the chosen tooth's jaw, or of the other one; while none is planned those of the upper row. */
export function plannedTeeth(chosen: Fdi, planned: readonly Fdi[]): readonly Fdi[] {
  const rows = isUpper(chosen) ? [UPPER_TEN, LOWER_TEN] : [LOWER_TEN, UPPER_TEN];
  const own = rows.map((row) => row.filter((t) => planned.includes(t))).find((row) => row.length > 0);
  return own ?? UPPER_TEN;
}

const StagesContext = createContext<readonly StageDefinition[]>([]);

/** Tells the frame and the pages which stages there are. */
export const StagesProvider = StagesContext.Provider;

/** The stages in the order of the journey. */
export const useStages = (): readonly StageDefinition[] => useContext(StagesContext);
