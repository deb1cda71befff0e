import pino from 'pino';

/** Says what the server does, without answers, names or codes. */
export type Log = (line: string, more?: Readonly<Record<string, string | number>>) => void;

/**
 * @param form `json`: one object of JSON a line, for programs that gather them; otherwise plain lines, of what needs to be
 *   read alone
 */
export function serverLog(form: 'json' | 'plain'): Log {
  if (form === 'plain')
    return (line, more) => {
      if (!more) console.log(`exchange: ${line}`);
    };
  const log = pino({
    base: { service: 'gribbet', process: process.pid },
    timestamp: pino.stdTimeFunctions.isoTime,
  });
  return (line, more = {}) => log.info(more, line);
}
