import '@fontsource/barlow/latin-400.css';
import '@fontsource/barlow/latin-ext-400.css';
import '@fontsource/barlow/latin-600.css';
import '@fontsource/barlow/latin-ext-600.css';
import '@fontsource/barlow-semi-condensed/latin-500.css';
import '@fontsource/barlow-semi-condensed/latin-600.css';
import '@fontsource/barlow-semi-condensed/latin-ext-600.css';
import '@fontsource/atkinson-hyperlegible-mono/latin-400.css';
import '@fontsource/atkinson-hyperlegible-mono/latin-700.css';
import '@mantine/core/styles.css';
import './ui/base.css';
import { MantineProvider } from '@mantine/core';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { App } from './app.js';
import { dropOldDrafts } from './drafts/drafts.js';
import { installApp } from './state/install-app.js';
import { store } from './state/store.js';
import { WatchReach } from './state/watch-reach.js';
import { watchPointer } from './ui/keys/pointed.js';
import { watchSlips } from './ui/keys/first-slip.js';
import { watchTyping } from './ui/keys/typing.js';
import { theme, themeVariables } from './ui/theme.js';

watchPointer();
watchTyping();
watchSlips();
dropOldDrafts();
if (import.meta.env.PROD) window.addEventListener('load', () => void installApp());
const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <MantineProvider theme={theme} cssVariablesResolver={themeVariables} forceColorScheme="light">
        <WatchReach />
        <App />
      </MantineProvider>
    </Provider>
  </StrictMode>,
);
