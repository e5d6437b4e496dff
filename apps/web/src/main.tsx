import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router/dom';
import { router } from './routes';
import { ApiError } from './shared/api/client';
import { applyColourMode } from './shared/ui/colour-mode';
import { Notices } from './shared/ui/notices';
import { system } from './shared/ui/theme';

applyColourMode();
const client = new QueryClient({
  defaultOptions: { queries: { staleTime: 30_000, retry: (count, error) => count < 2 && error instanceof ApiError && error.code === 'unreachable' } },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
        <Notices />
      </ChakraProvider>
    </QueryClientProvider>
  </StrictMode>,
);
