import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

/** What is counted of a server, for programs that watch over it: never a name, a code or an answer. */
export function newMetrics() {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const registers = [registry];
  return {
    requests: new Histogram({
      name: 'gribbet_request_seconds',
      help: 'How long requests took, by what was asked and how it was answered.',
      labelNames: ['method', 'path', 'status'] as const,
      buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10],
      registers,
    }),
    answers: new Counter({
      name: 'gribbet_answers_total',
      help: 'Answers of students that came in and were replied to.',
      registers,
    }),
    wrongGuesses: new Counter({
      name: 'gribbet_wrong_guesses_total',
      help: 'Wrong join codes, access codes and secrets, each counted once.',
      labelNames: ['what'] as const,
      registers,
    }),
    streams: new Gauge({ name: 'gribbet_desk_streams', help: 'Desks that listen at the moment.', registers }),
    mail: new Gauge({ name: 'gribbet_mail_queued', help: 'Messages that wait to be sent.', registers }),
    /** The open text format of metrics, and its media type. */
    text: async (): Promise<{ body: string; type: string }> => ({
      body: await registry.metrics(),
      type: registry.contentType,
    }),
  };
}

export type Metrics = ReturnType<typeof newMetrics>;
