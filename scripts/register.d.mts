import type { Server } from 'node:http';

interface Kept {
  categories: Map<string, object>;
  lineItems: Map<string, object>;
  results: Map<string, object>;
}

export function registerServer(options?: {
  clientId?: string;
  clientSecret?: string;
  known?: string[] | null;
}): { server: Server; kept: Kept; putCount: () => number };
