import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type BrowserContext } from '@playwright/test';

/** A browser with a profile of its own that can be killed at any moment, and opened again as it was. */
export class KilledBrowser {
  private readonly profile = mkdtempSync(join(tmpdir(), 'gribbet-profile-'));
  private process: ChildProcess | null = null;

  constructor(
    private readonly executable: string,
    private readonly args: string[],
  ) {}

  async open(): Promise<BrowserContext> {
    const portFile = join(this.profile, 'DevToolsActivePort');
    rmSync(portFile, { force: true });
    this.process = spawn(
      this.executable,
      [...this.args, `--user-data-dir=${this.profile}`, '--remote-debugging-port=0', 'about:blank'],
      // A group of its own: the whole of it is killed, as when the power goes.
      { detached: true, stdio: 'ignore' },
    );
    const portOf = () => (existsSync(portFile) ? readFileSync(portFile, 'utf8').split('\n')[0] : '') ?? '';
    await expect.poll(portOf, { timeout: 15_000, intervals: [50] }).not.toBe('');
    const port = portOf();
    const [context] = (await chromium.connectOverCDP(`http://127.0.0.1:${port}`)).contexts();
    if (!context) throw new Error('The browser has no profile');
    context.setDefaultTimeout(60_000);
    return context;
  }

  async kill(): Promise<void> {
    if (!this.process?.pid || this.process.exitCode !== null || this.process.signalCode !== null) return;
    const ended = once(this.process, 'exit');
    process.kill(-this.process.pid, 'SIGKILL');
    await ended;
  }

  async drop(): Promise<void> {
    await this.kill();
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}
