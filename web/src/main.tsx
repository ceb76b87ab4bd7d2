import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/bricolage-grotesque';
import './look/tokens.css';
import './look/base.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { sure } from '@jigsaw/core/lists';
import { makeStore } from './api/index.js';
import { applyTheme, chosenTheme } from './look/index.js';
import { makeRouter } from './app/routes.js';

applyTheme(chosenTheme());
createRoot(sure(document.getElementById('root'))).render(
  <StrictMode>
    <Provider store={makeStore()}>
      <RouterProvider router={makeRouter()} />
    </Provider>
  </StrictMode>,
);
