import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { queryClient } from './api/queries';
import { router } from './router';
import { tellCutText } from './ui/cut-text';
import './ui/base.css';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root');
tellCutText(document);
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
