import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Cases } from './pages/Cases.js';
import { Gate } from './pages/Gate.js';
import { People } from './pages/People.js';
import { CasePage } from './shell/CasePage.js';
import { StagesProvider } from './shell/stage.js';
import { STAGES } from './stages/index.js';
import { Boundary } from './ui/Boundary.js';
import { Waiting } from './ui/Waiting.js';

/** Not on the way to a case, so it comes when it is asked for. */
const Trays = lazy(async () => ({ default: (await import('./pages/Trays.js')).Trays }));

const Materials = lazy(async () => ({ default: (await import('./pages/Materials.js')).Materials }));

const Hours = lazy(async () => ({ default: (await import('./pages/Hours.js')).Hours }));

const WeekPage = lazy(async () => ({ default: (await import('./pages/WeekPage.js')).WeekPage }));

/** Routes: the list of cases, and in each case a stage. */
export function App() {
  return (
    <BrowserRouter>
      <Gate>
        {(who) => (
          <StagesProvider value={STAGES}>
            <Suspense fallback={<Waiting what="the page" />}>
              <Routes>
                <Route
                  path="/"
                  element={
                    <Boundary what="This page">
                      <Cases who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/people"
                  element={
                    <Boundary what="This page">
                      <People who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/trays"
                  element={
                    <Boundary what="This page">
                      <Trays who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/materials"
                  element={
                    <Boundary what="This page">
                      <Materials who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/hours"
                  element={
                    <Boundary what="This page">
                      <Hours who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/week"
                  element={
                    <Boundary what="This page">
                      <WeekPage who={who} />
                    </Boundary>
                  }
                />
                <Route
                  path="/cases/:id"
                  element={
                    <Boundary what="This page">
                      <CasePage who={who} />
                    </Boundary>
                  }
                >
                  <Route index element={<Navigate to="read" replace />} />
                  {STAGES.map((stage) => (
                    <Route key={stage.name} path={stage.name} element={<stage.element />} />
                  ))}
                </Route>
                <Route path="*" element={<Navigate to="/" replace />} />
              </Routes>
            </Suspense>
          </StagesProvider>
        )}
      </Gate>
    </BrowserRouter>
  );
}
