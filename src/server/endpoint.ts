import type { Context } from 'hono';
import type { Presence } from '@/core/exchange/presence';
import type { ExchangeStore } from './exchangeStore';
import type { AllGuesses } from './guesses';
import type { Metrics } from './metrics';
import type { Log } from './serverLog';
import type { ServerSettings } from './settings';

/** Who may ask: anyone (who then needs a code), who has the code of a share, who holds the token of an attempt, or a paired desk. */
export type Role = 'anyone' | 'marker' | 'student' | 'desk';

/** What an endpoint is given. */
export interface Asked {
  /** The request, and what its answer says beside its body. */
  http: Context;
  /** The address or network it comes from, as guesses are counted. */
  from: string;
  now: number;
}

export interface Endpoint {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Under `/api/exchange`; a part that begins with a colon is a parameter. */
  path: string;
  role: Role;
  /** The most that a request may hold, in bytes. */
  most: number;
  answer: (asked: Asked) => Promise<Response>;
}

/** What the endpoints share. */
export interface Surroundings {
  store: ExchangeStore;
  settings: ServerSettings;
  guesses: AllGuesses;
  presence: Presence;
  metrics: Metrics;
  /** Aborted when the server ends: what goes on by itself stops. */
  stopping: AbortSignal;
  log: Log;
}

/** The most that a request without answers or files may hold. */
export const smallBytes = 16 * 1024;
/** The most that the marks of a share may be: anyone may begin to send so much, and is then asked for its code. */
export const marksBytes = 16 * 1024 * 1024;
/** The most that a paired desk sends at once. */
export const deskBytes = 64 * 1024 * 1024;
