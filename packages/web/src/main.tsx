import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app/look.css';
import './app/use-look';
import { api, isSignedOut, troubleOf } from './app/api';
import { Shell } from './app/shell';
import { store } from './app/store';
import { GalleryPage } from './features/templates/gallery-page';
import { ProjectsPage } from './features/projects/list-page';
import { SignInPage } from './features/sign-in/sign-in-page';
import { Empty, Tips, Trouble } from './ui/ui';

const StartPage = lazy(() => import('./features/start/start-page').then((m) => ({ default: m.StartPage })));
const ProjectPage = lazy(() => import('./features/projects/project-page').then((m) => ({ default: m.ProjectPage })));
const ConventionsPage = lazy(() => import('./features/conventions/list-page').then((m) => ({ default: m.ConventionsPage })));
const EditorPage = lazy(() => import('./features/conventions/editor-page').then((m) => ({ default: m.EditorPage })));
const LearnPage = lazy(() => import('./features/conventions/learn-page').then((m) => ({ default: m.LearnPage })));
const NamesPage = lazy(() => import('./features/names/names-page').then((m) => ({ default: m.NamesPage })));
const TemplateEditorPage = lazy(() => import('./features/templates/editor/editor-page').then((m) => ({ default: m.TemplateEditorPage })));
const PrintPage = lazy(() => import('./features/templates/print-page').then((m) => ({ default: m.PrintPage })));
const DerivePage = lazy(() => import('./features/templates/derive-page').then((m) => ({ default: m.DerivePage })));
const TakeInPage = lazy(() => import('./features/rule-set/take-in-page').then((m) => ({ default: m.TakeInPage })));
const BlocksPage = lazy(() => import('./features/blocks/list-page').then((m) => ({ default: m.BlocksPage })));
const BlockPage = lazy(() => import('./features/blocks/editor-page').then((m) => ({ default: m.BlockPage })));
const HouseListPage = lazy(() => import('./features/house/list-page').then((m) => ({ default: m.HouseListPage })));
const NumbersPage = lazy(() => import('./features/house/numbers-page').then((m) => ({ default: m.NumbersPage })));
const PeoplePage = lazy(() => import('./features/house/people-page').then((m) => ({ default: m.PeoplePage })));
const VolumesPage = lazy(() => import('./features/house/volumes-page').then((m) => ({ default: m.VolumesPage })));
const OutboxPage = lazy(() => import('./features/house/outbox-page').then((m) => ({ default: m.OutboxPage })));
const ActivityPage = lazy(() => import('./features/house/activity-page').then((m) => ({ default: m.ActivityPage })));
const MePage = lazy(() => import('./features/access/me-page').then((m) => ({ default: m.MePage })));
const WelcomePage = lazy(() => import('./features/access/welcome-page').then((m) => ({ default: m.WelcomePage })));
const SeveralPage = lazy(() => import('./features/start/several-page').then((m) => ({ default: m.SeveralPage })));
const SheetPrintPage = lazy(() => import('./features/projects/sheet-print-page').then((m) => ({ default: m.SheetPrintPage })));
const TemplatePage = lazy(() => import('./features/templates/template-page').then((m) => ({ default: m.TemplatePage })));

/** Who is not signed in sees the sign-in page, at whatever address: after it, the address is where they wanted to be. */
function Door() {
  const { data: me, error, isError, refetch } = api.useMeQuery();
  if (isError && isSignedOut(error)) return <SignInPage />;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  return me === undefined ? null : <Shell me={me} />;
}

const later = (page: React.ReactNode) => <Suspense fallback={null}>{page}</Suspense>;

const router = createBrowserRouter([
  { path: '/welcome', element: later(<WelcomePage />) },
  {
    path: '/',
    element: <Door />,
    children: [
      { index: true, element: <Navigate to="/projects" replace /> },
      { path: 'templates', element: <GalleryPage /> },
      { path: 'templates/derive', element: later(<DerivePage />) },
      { path: 'templates/take-in', element: later(<TakeInPage />) },
      { path: 'blocks', element: later(<BlocksPage />) },
      { path: 'blocks/:id', element: later(<BlockPage />) },
      { path: 'templates/:id/print', element: later(<PrintPage />) },
      { path: 'templates/:id/edit', element: later(<TemplateEditorPage />) },
      { path: 'templates/:id', element: later(<TemplatePage />) },
      { path: 'conventions', element: later(<ConventionsPage />) },
      { path: 'conventions/learn', element: later(<LearnPage />) },
      { path: 'conventions/:id', element: later(<EditorPage />) },
      { path: 'registers', element: <Navigate to="/registers/clients" replace /> },
      { path: 'registers/numbers', element: later(<NumbersPage />) },
      { path: 'registers/people', element: later(<PeoplePage />) },
      { path: 'registers/volumes', element: later(<VolumesPage />) },
      { path: 'registers/outbox', element: later(<OutboxPage />) },
      { path: 'registers/:list', element: later(<HouseListPage />) },
      { path: 'activity', element: later(<ActivityPage />) },
      { path: 'me', element: later(<MePage />) },
      { path: 'names', element: later(<NamesPage />) },
      { path: 'start/several', element: later(<SeveralPage />) },
      { path: 'start', element: later(<StartPage />) },
      { path: 'projects', element: <ProjectsPage /> },
      { path: 'projects/:id/sheet', element: later(<SheetPrintPage />) },
      { path: 'projects/:id', element: later(<ProjectPage />) },
      { path: '*', element: <Empty title="There is nothing at this address">Ctrl K finds any project, template, client or person.</Empty> },
    ],
  },
]);

// Pages that are a click away are fetched while nothing else is to do, so that the click itself waits for no script.
const soon = () => void Promise.all([import('./features/projects/project-page'), import('./features/start/start-page'), import('./features/house/list-page'), import('./features/house/activity-page'), import('./features/conventions/list-page'), import('./features/names/names-page'), import('./features/templates/template-page')]).catch(() => undefined);
if ('requestIdleCallback' in globalThis) requestIdleCallback(soon, { timeout: 4000 });
else setTimeout(soon, 2000);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <Provider store={store}>
      <Tips delayDuration={300}>
        <RouterProvider router={router} />
      </Tips>
    </Provider>
  </StrictMode>,
);
