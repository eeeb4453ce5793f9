import type { Who } from '@radiant/contract';
import { type ComponentType, lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Cases } from './pages/Cases.js';
import { Gate } from './pages/Gate.js';
import { StagesProvider } from './shell/stage.js';
import { STAGES } from './stages/index.js';
import { Boundary } from './ui/Boundary.js';
import { Waiting } from './ui/Waiting.js';

type Page = ComponentType<{ who: Who }>;

/** Pages beside the cases, by their address: not on the way to a case, so each comes when it is asked for. */
const PAGES: Readonly<Record<string, Page>> = {
  people: lazy(async () => ({ default: (await import('./pages/People.js')).People })),
  trays: lazy(async () => ({ default: (await import('./pages/Trays.js')).Trays })),
  materials: lazy(async () => ({ default: (await import('./pages/Materials.js')).Materials })),
  hours: lazy(async () => ({ default: (await import('./pages/Hours.js')).Hours })),
  week: lazy(async () => ({ default: (await import('./pages/WeekPage.js')).WeekPage })),
};

/** A case: not needed to sign in, and on its way as soon as somebody has. */
const fetchCase = () => import('./shell/CasePage.js');
const CasePage = lazy(async () => ({ default: (await fetchCase()).CasePage }));

/** Routes: the list of cases, and in each case a stage. */
export function App() {
  const page = (Shown: Page, who: Who) => (
    <Boundary what="This page">
      <Shown who={who} />
    </Boundary>
  );
  return (
    <BrowserRouter>
      <Gate>
        {(who) => {
          fetchCase().catch(() => undefined);
          return (
            <StagesProvider value={STAGES}>
              <Suspense fallback={<Waiting what="the page" />}>
                <Routes>
                  <Route path="/" element={page(Cases, who)} />
                  {Object.entries(PAGES).map(([path, Shown]) => (
                    <Route key={path} path={`/${path}`} element={page(Shown, who)} />
                  ))}
                  <Route path="/cases/:id" element={page(CasePage, who)}>
                    <Route index element={<Navigate to="read" replace />} />
                    {STAGES.map((stage) => (
                      <Route key={stage.name} path={stage.name} element={<stage.element />} />
                    ))}
                  </Route>
                  <Route path="*" element={<Navigate to="/" replace />} />
                </Routes>
              </Suspense>
            </StagesProvider>
          );
        }}
      </Gate>
    </BrowserRouter>
  );
}
