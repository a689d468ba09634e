import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { startListening } from './live/listen.js';
import { startDelivery } from './saving/deliver.js';
import { pageFailed } from './saving/savingSlice.js';
import { keepPage } from './shell/keepPage.js';
import { fetchRest, routes } from './shell/routes.js';
import { store } from './shell/store.js';
import { whenAnswered } from './shell/whenAnswered.js';
import { applyAppearance } from './ui/appearanceSlice.js';
import { GlobalStyle } from './ui/GlobalStyle.js';
import { dropDoneNotes } from './ui/typingNotes.js';

const showAppearance = () => applyAppearance(store.getState().appearance.setting);
showAppearance();
matchMedia('(prefers-color-scheme: dark)').addEventListener('change', showAppearance);
const failed = (cause: unknown) =>
  store.dispatch(pageFailed(cause instanceof Error ? cause.message : String(cause ?? 'unknown')));
addEventListener('error', (event) => {
  // Pictures and scripts that do not load are told by their own events, without an error; observers that lag behind are harmless.
  if (event.error !== undefined && event.error !== null) failed(event.error);
});
addEventListener('unhandledrejection', (event) => failed(event.reason));
startDelivery(store).catch(failed);
// Once the page that was asked for shows something, the others follow. What cannot be fetched now is fetched when it is opened.
whenAnswered(() => startListening(store));
whenAnswered(
  () =>
    void fetchRest()
      .then(async () => (await import('./saving/tellUnsent.js')).startTellingUnsent(store))
      .then(keepPage)
      .catch(() => undefined),
);

await dropDoneNotes();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <GlobalStyle />
      <RouterProvider router={routes} />
    </Provider>
  </StrictMode>,
);
