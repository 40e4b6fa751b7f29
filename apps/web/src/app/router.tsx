import { createBrowserRouter } from 'react-router';
import { ClientPage } from '../features/clients/client-page.js';
import { ClientsPage } from '../features/clients/clients-page.js';
import { ConnectedPage } from '../features/clients/connected-page.js';
import { PlatformsPage } from '../features/clients/platforms-page.js';
import { CutPage } from '../features/cutting/cut-page.js';
import { DeskPage } from '../features/desk/desk-page.js';
import { UsersPage } from '../features/identity/users-page.js';
import { WelcomePage } from '../features/identity/welcome-page.js';
import { SchedulePage } from '../features/planning/schedule-page.js';
import { RecordingsPage } from '../features/recordings/recordings-page.js';
import { ShortsPage } from '../features/shorts/shorts-page.js';
import { BenchPage } from '../features/sifting/bench-page.js';
import { ComparePage } from '../features/sifting/compare-page.js';
import { NotFound, RouteTrouble, Shell } from './shell.js';

/** With its editor, which no other page needs. */
const documents = async () => ({ Component: (await import('../features/documents/documents-page.js')).DocumentsPage });

export const router = createBrowserRouter([
  { path: 'welcome/:token', element: <WelcomePage />, errorElement: <RouteTrouble /> },
  {
    element: <Shell />,
    errorElement: <RouteTrouble />,
    children: [
      { index: true, element: <DeskPage /> },
      { path: 'recordings', element: <RecordingsPage /> },
      { path: 'recordings/:recordingId', element: <BenchPage /> },
      { path: 'recordings/:recordingId/sifts/:siftId', element: <BenchPage /> },
      { path: 'recordings/:recordingId/compare/:siftId/:otherId', element: <ComparePage /> },
      { path: 'recordings/:recordingId/documents', lazy: documents },
      { path: 'recordings/:recordingId/documents/:kind', lazy: documents },
      { path: 'shorts', element: <ShortsPage /> },
      { path: 'shorts/:shortId', element: <ShortsPage /> },
      { path: 'shorts/:shortId/cut', element: <CutPage /> },
      { path: 'schedule', element: <SchedulePage /> },
      { path: 'clients', element: <ClientsPage /> },
      { path: 'clients/:clientId', element: <ClientPage /> },
      { path: 'connected', element: <ConnectedPage /> },
      { path: 'platforms', element: <PlatformsPage /> },
      { path: 'users', element: <UsersPage /> },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
