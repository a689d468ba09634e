import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { routes } from './app/routes.js';
import { store } from './app/store.js';
import { applyAppearance } from './look/appearanceSlice.js';
import { GlobalStyle } from './look/GlobalStyle.js';
import { startDelivery } from './saving/deliver.js';

const showAppearance = () => applyAppearance(store.getState().appearance.setting);
showAppearance();
matchMedia('(prefers-color-scheme: dark)').addEventListener('change', showAppearance);
void startDelivery(store);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <GlobalStyle />
      <RouterProvider router={routes} />
    </Provider>
  </StrictMode>,
);
