import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Boundary } from './shell/Boundary.js';
import { CasePage } from './shell/CasePage.js';
import { Cases } from './shell/Cases.js';
import { Gate } from './shell/Gate.js';
import { People } from './shell/People.js';
import { Waiting } from './shell/Waiting.js';

const Meet = lazy(() => import('./meet/Meet.js'));
const Read = lazy(() => import('./read/Read.js'));
const Propose = lazy(() => import('./propose/Propose.js'));
const Shape = lazy(() => import('./shape/Shape.js'));
const Reduce = lazy(() => import('./reduce/Reduce.js'));
const Keep = lazy(() => import('./keep/Keep.js'));

/** Routes: the list of cases, and in each case a stage. */
export function App() {
  return (
    <BrowserRouter>
      <Gate>
        {(who) => (
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
                path="/cases/:id"
                element={
                  <Boundary what="This page">
                    <CasePage who={who} />
                  </Boundary>
                }
              >
                <Route index element={<Navigate to="read" replace />} />
                <Route path="meet" element={<Meet />} />
                <Route path="read" element={<Read />} />
                <Route path="propose" element={<Propose />} />
                <Route path="shape" element={<Shape />} />
                <Route path="reduce" element={<Reduce />} />
                <Route path="keep" element={<Keep />} />
              </Route>
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        )}
      </Gate>
    </BrowserRouter>
  );
}
