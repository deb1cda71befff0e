import { build } from 'esbuild';
import puppeteer, { type ElementHandle } from 'puppeteer-core';
import { Builder, Capabilities, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { expect } from 'vitest';

/** What a person does in a page, the same in every browser: by role and name, with real presses. */
export interface Page {
  goTo: (address: string) => Promise<void>;
  /** Clicks what has this role and name, once it is there. */
  press: (role: string, name: string | RegExp) => Promise<void>;
  /** Types into what has this label. */
  type: (label: string | RegExp, text: string) => Promise<void>;
  /** Chooses in a list by typing what the option begins with. */
  choose: (name: string | RegExp, option: string) => Promise<void>;
  key: (...keys: string[]) => Promise<void>;
  /** Runs in the page, given what finds by role and name there. */
  ask: <T>(question: string) => Promise<T>;
  /** Waits until something of this role and name is there. */
  there: (role: string, name: string | RegExp) => Promise<void>;
  close: () => Promise<void>;
}

export interface OtherBrowser {
  name: string;
  newPage: () => Promise<Page>;
  /** What its console had to complain about, where it tells. */
  errors: string[];
  close: () => Promise<void>;
}

/** Finds by role and name as assistive technology would: the code of testing-library, put into the page. */
const finder = build({
  stdin: {
    contents: `import { queryAllByRole, queryAllByLabelText } from '@testing-library/dom';
      const nameFrom = ([source, flags]) => flags === null ? source : new RegExp(source, flags);
      const ofAll = (role, name) => queryAllByRole(document.body, role, { name: nameFrom(name) });
      const first = (all) => all.find((each) => each.getAttribute('aria-disabled') !== 'true') ?? all[0] ?? null;
      globalThis.gribbetFind = { role: (role, name) => first(ofAll(role, name)), all: ofAll,
        label: (name) => queryAllByLabelText(document.body, nameFrom(name))[0] ?? null };`,
    resolveDir: process.cwd(),
  },
  bundle: true,
  format: 'iife',
  write: false,
  define: { 'process.env.NODE_ENV': '"test"', process: '{ "env": {} }' },
  logLevel: 'error',
}).then(({ outputFiles }) => outputFiles[0]?.text ?? '');

const named = (name: string | RegExp) =>
  JSON.stringify(typeof name === 'string' ? [name, null] : [name.source, name.flags]);

const patienceMs = 30_000;
/** Looks until something is found, and gives it. */
export async function until<T>(what: string, look: () => Promise<T | null>): Promise<T> {
  let found: T | null = null;
  await expect
    .poll(async () => (found = await look().catch(() => null)) !== null, {
      ...{ timeout: patienceMs, interval: 100 },
      message: `${what} is there`,
    })
    .toBe(true);
  return found as T; // what was looked for above
}

/** What a browser has to be able to do for all of the above. */
interface Raw {
  goTo: (address: string) => Promise<void>;
  run: (script: string) => Promise<unknown>;
  /** Clicks or types into the element that the script gives. */
  click: (script: string) => Promise<void>;
  typeInto: (script: string, text: string) => Promise<void>;
  key: (key: string) => Promise<void>;
  close: () => Promise<void>;
}

function pageOf(raw: Raw): Page {
  const ask = async <T>(question: string) => {
    if ((await raw.run('return typeof gribbetFind')) !== 'object') await raw.run(await finder);
    return (await raw.run(`return (${question})`)) as T;
  };
  const there = (finding: string) =>
    until(finding, async () => ((await ask<boolean>(`Boolean(${finding})`)) ? true : null));
  return {
    ask,
    goTo: raw.goTo,
    key: async (...keys) => {
      for (const key of keys) await raw.key(key);
    },
    press: async (role, name) => {
      const finding = `gribbetFind.role('${role}', ${named(name)})`;
      await there(`${finding} && !${finding}.disabled`);
      await raw.click(`return ${finding}`);
    },
    type: async (label, text) => {
      const finding = `(gribbetFind.label(${named(label)}) ?? gribbetFind.role('textbox', ${named(label)}))`;
      await there(finding);
      await raw.typeInto(`return ${finding}`, text);
    },
    choose: async (name, option) => {
      const finding = `gribbetFind.role('combobox', ${named(name)})`;
      await there(finding);
      await ask(`${finding}.focus()`);
      for (const letter of option) await raw.key(letter);
      await until(`${option} chosen`, () =>
        ask<true | null>(`${finding}.selectedOptions[0]?.text === ${JSON.stringify(option)} || null`),
      );
    },
    there: async (role, name) => {
      await there(`gribbetFind.role('${role}', ${named(name)})`);
    },
    close: raw.close,
  };
}

const keysOfWebDriver: Readonly<Record<string, string>> = {
  Enter: Key.ENTER,
  ArrowDown: Key.ARROW_DOWN,
  Tab: Key.TAB,
};

/** Debian's firefox-esr, over WebDriver BiDi. */
export async function firefox(): Promise<OtherBrowser> {
  const browser = await puppeteer.launch({
    ...{ browser: 'firefox', executablePath: '/usr/bin/firefox-esr', headless: true },
    defaultViewport: { width: 1280, height: 800 },
  });
  const errors: string[] = [];
  return {
    errors,
    name: `Firefox ${await browser.version()}`,
    close: () => browser.close(),
    newPage: async () => {
      const page = await browser.newPage();
      page.on('pageerror', (error) => errors.push(String(error)));
      page.on('console', (message) => {
        if (['error', 'warn'].includes(message.type())) errors.push(message.text());
      });
      // As text: what a function of ours would `eval`, the page’s policy forbids.
      const run = (script: string) => page.evaluate(`(() => { ${script} })()`);
      const element = async (script: string) => {
        const handle = (await page.evaluateHandle(`(() => { ${script} })()`)).asElement();
        if (!handle) throw new Error(`${script}: nothing there`);
        return handle as ElementHandle<Element>;
      };
      return pageOf({
        run,
        goTo: async (address) => void (await page.goto(address)),
        click: async (script) => {
          await (await element(script)).click();
        },
        typeInto: async (script, text) => {
          const field = await element(script);
          await field.click({ count: 3 });
          await field.type(text);
        },
        key: (key) => page.keyboard.press(key as 'Enter'),
        close: () => page.close(),
      });
    },
  };
}

/** WebKit in Debian's MiniBrowser, over WebDriver; it needs a display. */
export async function webkit(): Promise<OtherBrowser> {
  const capabilities = new Capabilities({
    browserName: 'MiniBrowser',
    'webkitgtk:browserOptions': {
      binary: '/usr/lib/x86_64-linux-gnu/webkit2gtk-4.1/MiniBrowser',
      args: ['--automation'],
    },
  });
  const driver = await new Builder()
    .usingServer('http://127.0.0.1:4498')
    .withCapabilities(capabilities)
    .build();
  return {
    errors: [],
    name: 'WebKit',
    close: () => driver.quit(),
    newPage: () => webDriverPage(driver),
  };
}

async function webDriverPage(driver: WebDriver): Promise<Page> {
  // The one it was at may be closed.
  const [open = ''] = await driver.getAllWindowHandles();
  await driver.switchTo().window(open);
  await driver.switchTo().newWindow('tab');
  const tab = await driver.getWindowHandle();
  const here =
    <A extends unknown[], R>(work: (...args: A) => Promise<R>) =>
    async (...args: A): Promise<R> => {
      await driver.switchTo().window(tab);
      return work(...args);
    };
  const element = (script: string) => driver.executeScript<WebElement>(script);
  return pageOf({
    run: here((script: string) => driver.executeScript<unknown>(script)),
    goTo: here((address: string) => driver.get(address)),
    click: here(async (script: string) => (await element(script)).click()),
    typeInto: here(async (script: string, text: string) => {
      const field = await element(script);
      await field.clear();
      await field.sendKeys(text);
    }),
    key: here(async (key: string) => {
      await driver
        .actions()
        .sendKeys(keysOfWebDriver[key] ?? key)
        .perform();
    }),
    close: here(() => driver.close()),
  });
}
