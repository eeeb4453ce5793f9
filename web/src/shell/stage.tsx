import type { SectionName } from '@radiant/contract';
import type { Fdi } from '@radiant/core';
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

const StagesContext = createContext<readonly StageDefinition[]>([]);

/** Tells the frame and the pages which stages there are. */
export const StagesProvider = StagesContext.Provider;

/** The stages in the order of the journey. */
export const useStages = (): readonly StageDefinition[] => useContext(StagesContext);
