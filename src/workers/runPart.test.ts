// @vitest-environment jsdom
import { afterEach, expect, it, vi } from 'vitest';
import { runPart } from './runPart';

afterEach(() => {
  self.name = '';
});

it('what is said to a part while it loads is heard once it listens, in its order and once', async () => {
  self.name = 'slow';
  const heard: unknown[] = [];
  let load: () => void = () => undefined;
  const loaded = new Promise<void>((resolve) => {
    load = resolve;
  });
  const run = runPart({
    slow: async () => {
      await loaded;
      self.addEventListener('message', ({ data, ports }: MessageEvent) => heard.push(data, ports.length));
    },
    other: () => Promise.reject(new Error('no other part is loaded')),
  });
  const { port1 } = new MessageChannel();
  self.dispatchEvent(new MessageEvent('message', { data: 'first', ports: [port1] }));
  self.dispatchEvent(new MessageEvent('message', { data: 'second' }));
  load();
  await run;
  self.dispatchEvent(new MessageEvent('message', { data: 'third' }));
  expect(heard).toEqual(['first', 1, 'second', 0, 'third', 0]);
  port1.close();
});

it('a part that does not load is an error of the worker', async () => {
  self.name = 'gone';
  const reported = vi.fn();
  vi.stubGlobal('reportError', reported);
  const fault = new Error('the script is not there');
  await runPart({ gone: () => Promise.reject(fault) });
  expect(reported).toHaveBeenCalledWith(fault);
  vi.unstubAllGlobals();
});
