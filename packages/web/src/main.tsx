import { present } from '@nesting/core';
import { type ComponentType, lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, matchRoutes, Navigate, type RouteObject, RouterProvider } from 'react-router';
import { peopleApi } from './features/access/people-api';
import './app/theme.css';
import './app/use-theme';
import { isSignedOut, troubleOf } from './app/api';
import { Shell } from './app/shell';
import { store } from './app/store';
import { ProjectsPage } from './features/projects/list-page';
import { SignInPage } from './features/sign-in/sign-in-page';
import { GalleryPage } from './features/templates/gallery-page';
import { Empty, Tips, Trouble } from './ui';

const startPage = () => import('./features/start/start-page').then((m) => ({ default: m.StartPage }));
const projectPage = () => import('./features/projects/project/project-page').then((m) => ({ default: m.ProjectPage }));
const conventionsPage = () => import('./features/conventions/list-page').then((m) => ({ default: m.ConventionsPage }));
const editorPage = () => import('./features/conventions/editor-page').then((m) => ({ default: m.EditorPage }));
const learnPage = () => import('./features/conventions/learn-page').then((m) => ({ default: m.LearnPage }));
const namesPage = () => import('./features/names/names-page').then((m) => ({ default: m.NamesPage }));
const templateEditorPage = () =>
  import('./features/templates/editor/editor-page').then((m) => ({ default: m.TemplateEditorPage }));
const printPage = () => import('./features/templates/print-page').then((m) => ({ default: m.PrintPage }));
const derivePage = () => import('./features/templates/derive-page').then((m) => ({ default: m.DerivePage }));
const takeInPage = () => import('./features/rule-set/take-in-page').then((m) => ({ default: m.TakeInPage }));
const blocksPage = () => import('./features/blocks/list-page').then((m) => ({ default: m.BlocksPage }));
const blockPage = () => import('./features/blocks/editor-page').then((m) => ({ default: m.BlockPage }));
const houseListPage = () => import('./features/house/list-page').then((m) => ({ default: m.HouseListPage }));
const marksPage = () => import('./features/house/marks-page').then((m) => ({ default: m.MarksPage }));
const numbersPage = () => import('./features/house/numbers-page').then((m) => ({ default: m.NumbersPage }));
const peoplePage = () => import('./features/house/people-page').then((m) => ({ default: m.PeoplePage }));
const volumesPage = () => import('./features/house/volumes-page').then((m) => ({ default: m.VolumesPage }));
const outboxPage = () => import('./features/house/outbox-page').then((m) => ({ default: m.OutboxPage }));
const activityPage = () => import('./features/house/activity-page').then((m) => ({ default: m.ActivityPage }));
const mePage = () => import('./features/access/me-page').then((m) => ({ default: m.MePage }));
const welcomePage = () => import('./features/access/welcome-page').then((m) => ({ default: m.WelcomePage }));
const reshapePage = () => import('./features/reshape/reshape-page').then((m) => ({ default: m.ReshapePage }));
const repairPage = () => import('./features/repair/repair-page').then((m) => ({ default: m.RepairPage }));
const batchesPage = () => import('./features/batches/batches-page').then((m) => ({ default: m.BatchesPage }));
const intakePage = () => import('./features/intake/intake-page').then((m) => ({ default: m.IntakePage }));
const intakeHerePage = () =>
  import('./features/intake/here/intake-here-page').then((m) => ({ default: m.IntakeHerePage }));
const inboxPage = () => import('./features/intake/inbox-page').then((m) => ({ default: m.InboxPage }));
const carryPage = () => import('./features/carry-over/carry-page').then((m) => ({ default: m.CarryPage }));
const packPage = () => import('./features/packages/pack-page').then((m) => ({ default: m.PackPage }));
const packagesPage = () => import('./features/packages/packages-page').then((m) => ({ default: m.PackagesPage }));
const checkPackagePage = () => import('./features/packages/check-page').then((m) => ({ default: m.CheckPackagePage }));
const sentPage = () => import('./features/packages/sent-page').then((m) => ({ default: m.SentPage }));
const comparePage = () => import('./features/compare/compare-page').then((m) => ({ default: m.ComparePage }));
const copiesPage = () => import('./features/batches/copies-page').then((m) => ({ default: m.CopiesPage }));
const adoptPage = () => import('./features/adopt/adopt-page').then((m) => ({ default: m.AdoptPage }));
const herePage = () => import('./features/checks/here-page').then((m) => ({ default: m.HerePage }));
const overviewPage = () => import('./features/checks/overview-page').then((m) => ({ default: m.OverviewPage }));
const whoPage = () => import('./features/checks/people-page').then((m) => ({ default: m.WhoPage }));
const minePage = () => import('./features/checks/mine-page').then((m) => ({ default: m.MinePage }));
const proposalsPage = () => import('./features/checks/proposals-page').then((m) => ({ default: m.ProposalsPage }));
const setAsidePage = () => import('./features/checks/set-aside-page').then((m) => ({ default: m.SetAsidePage }));
const leftPage = () => import('./features/checks/left/left-page').then((m) => ({ default: m.LeftPage }));
const repairAllPage = () => import('./features/repair/repair-all-page').then((m) => ({ default: m.RepairAllPage }));
const exceptionsPage = () => import('./features/checks/exceptions-page').then((m) => ({ default: m.ExceptionsPage }));
const findingsPaperPage = () => import('./features/checks/paper-pages').then((m) => ({ default: m.FindingsPaperPage }));
const personPaperPage = () => import('./features/checks/paper-pages').then((m) => ({ default: m.PersonPaperPage }));
const yoursPage = () => import('./features/checks/paper-pages').then((m) => ({ default: m.YoursPage }));
const severalPage = () => import('./features/start/several-page').then((m) => ({ default: m.SeveralPage }));
const sheetPrintPage = () =>
  import('./features/projects/sheet-print-page').then((m) => ({ default: m.SheetPrintPage }));
const templatePage = () => import('./features/templates/template-page').then((m) => ({ default: m.TemplatePage }));

/**
 * Who is not signed in sees the sign-in page, at whatever address: after it, the address is where they wanted to be.
 */
function Door() {
  const { data: me, error, isError, refetch } = peopleApi.useMeQuery();
  if (isError && isSignedOut(error)) return <SignInPage />;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  return me === undefined ? null : <Shell me={me} />;
}

/**
 * A page with a script of its own; `load` lets it be fetched before it is drawn. Pages about one thing say its name as
 * their title themselves.
 */
function later(load: () => Promise<{ default: ComponentType }>, title?: string) {
  const Page = lazy(load);
  return {
    element: (
      <Suspense fallback={null}>
        <Page />
      </Suspense>
    ),
    handle: { load, title },
  };
}

const routes: RouteObject[] = [
  { path: '/welcome', ...later(welcomePage, 'Welcome') },
  { path: '/sent', ...later(sentPage, 'A package for you') },
  { path: '/yours', ...later(yoursPage, 'Yours to put right') },
  {
    path: '/',
    element: <Door />,
    children: [
      { index: true, element: <Navigate to="/projects" replace /> },
      { path: 'templates', element: <GalleryPage />, handle: { title: 'Templates' } },
      { path: 'templates/derive', ...later(derivePage, 'Derive a template') },
      { path: 'templates/take-in', ...later(takeInPage, 'Take in rules') },
      { path: 'blocks', ...later(blocksPage, 'Shared parts') },
      { path: 'blocks/:id', ...later(blockPage) },
      { path: 'templates/:id/print', ...later(printPage) },
      { path: 'templates/:id/edit', ...later(templateEditorPage) },
      { path: 'templates/:id', ...later(templatePage) },
      { path: 'conventions', ...later(conventionsPage, 'Conventions') },
      { path: 'conventions/learn', ...later(learnPage, 'Learn a convention') },
      { path: 'conventions/:id', ...later(editorPage) },
      { path: 'registers', element: <Navigate to="/registers/clients" replace /> },
      { path: 'registers/marks', ...later(marksPage, 'Marks') },
      { path: 'registers/numbers', ...later(numbersPage, 'Project numbers') },
      { path: 'registers/people', ...later(peoplePage, 'People') },
      { path: 'registers/volumes', ...later(volumesPage, 'Volumes') },
      { path: 'registers/outbox', ...later(outboxPage, 'Outbox') },
      { path: 'registers/:list', ...later(houseListPage) },
      { path: 'activity', ...later(activityPage, 'Activity') },
      { path: 'me', ...later(mePage, 'My account') },
      { path: 'names', ...later(namesPage) },
      { path: 'start/adopt', ...later(adoptPage, 'Take in a folder') },
      { path: 'start/several', ...later(severalPage, 'Start several projects') },
      { path: 'start', ...later(startPage, 'Start a project') },
      { path: 'projects', element: <ProjectsPage />, handle: { title: 'All projects' } },
      { path: 'compare', ...later(comparePage, 'Side by side') },
      { path: 'projects/:id/sheet', ...later(sheetPrintPage) },
      { path: 'projects/:id/change', ...later(reshapePage) },
      { path: 'projects/:id/repair', ...later(repairPage) },
      { path: 'projects/:id/batches', ...later(batchesPage) },
      { path: 'projects/:id/carry', ...later(carryPage) },
      { path: 'projects/:id/pack', ...later(packPage) },
      { path: 'packages', ...later(packagesPage) },
      { path: 'packages/check', ...later(checkPackagePage) },
      { path: 'projects/:id/intake', ...later(intakePage) },
      { path: 'intake', ...later(inboxPage) },
      { path: 'intake/here', ...later(intakeHerePage, 'Bring files in on this computer') },
      { path: 'projects/:id/copies', ...later(copiesPage) },
      { path: 'projects/:id/here', ...later(herePage) },
      { path: 'projects/:id/findings', ...later(findingsPaperPage) },
      { path: 'projects/:id', ...later(projectPage) },
      { path: 'checks', ...later(overviewPage, 'Checks') },
      { path: 'checks/people', ...later(whoPage, 'Who has what to put right') },
      { path: 'checks/mine', ...later(minePage, 'Mine to put right') },
      { path: 'checks/proposals', ...later(proposalsPage, 'Proposals') },
      { path: 'checks/set-aside', ...later(setAsidePage, 'Set aside') },
      { path: 'checks/left', ...later(leftPage, 'What programs left on this computer') },
      { path: 'checks/repair', ...later(repairAllPage, 'Put right everywhere') },
      { path: 'checks/exceptions', ...later(exceptionsPage, 'Accepted findings') },
      { path: 'checks/paper/:initials', ...later(personPaperPage) },
      {
        path: '*',
        element: (
          <Empty title="There is nothing at this address">Ctrl K finds any project, template, client or person.</Empty>
        ),
      },
    ],
  },
];

// The page of this address is fetched beside the question who is there, not after its answer.
for (const { route } of matchRoutes(routes, location.pathname) ?? [])
  void (route.handle as { load?: () => Promise<unknown> } | undefined)?.load?.().catch(() => undefined);

// Pages that are a click away are fetched once the first is there and nothing else is to do, so that a click waits for
// no script and the first page for no others.
const soon = () =>
  void Promise.all(
    [projectPage, startPage, houseListPage, activityPage, conventionsPage, namesPage, templatePage].map((load) =>
      load(),
    ),
  ).catch(() => undefined);
addEventListener('load', () =>
  setTimeout('requestIdleCallback' in globalThis ? () => requestIdleCallback(soon, { timeout: 4000 }) : soon, 1500),
);

const router = createBrowserRouter(routes);

createRoot(present(document.getElementById('root'))).render(
  <StrictMode>
    <Provider store={store}>
      <Tips delayDuration={300}>
        <RouterProvider router={router} />
      </Tips>
    </Provider>
  </StrictMode>,
);
