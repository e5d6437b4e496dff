import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, error, Key, logging, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

/** Machines that test are slow at times; nothing here measures speed. */
const PATIENCE = 45_000;
const literal = (text: string) =>
  text.includes('"')
    ? `concat(${text
        .split('"')
        .map((part) => `"${part}"`)
        .join(`, '"', `)})`
    : `"${text}"`;

/** Runs in the page: the smallest visible element whose text holds the words. */
const findText = `
  const words = arguments[0];
  const holds = (element) => element.textContent.replace(/\\s+/g, ' ').includes(words);
  const find = (element) => {
    if (['SCRIPT', 'STYLE'].includes(element.tagName) || !holds(element)) return null;
    for (const child of element.children) {
      const found = find(child);
      if (found) return found;
    }
    return element.checkVisibility() ? element : null;
  };
  return find(document.body);`;

/** Runs in the page: the button or link of that name; else the first whose name begins with it. */
const findControl = `
  const name = arguments[0];
  const all = [...document.querySelectorAll('button, a, [role=menuitem]')].filter((element) => !element.disabled && element.checkVisibility());
  const text = (element) => element.textContent.replace(/\\s+/g, ' ').trim();
  return all.find((element) => text(element) === name || element.getAttribute('aria-label') === name) ?? all.find((element) => text(element).startsWith(name)) ?? null;`;

/** A person at a browser: finds things by what they read, not by how they are built. */
export class Person {
  readonly driver: WebDriver;
  private readonly profile: string;

  private constructor(driver: WebDriver, profile: string) {
    this.driver = driver;
    this.profile = profile;
  }

  static async arrive(name: string): Promise<Person> {
    const profile = mkdtempSync(join(tmpdir(), 'coomb-browser-'));
    const options = new Options();
    options.setChromeBinaryPath('/usr/bin/chromium');
    const flags = [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--window-size=1280,943',
    ];
    options.addArguments(...flags, `--user-data-dir=${profile}`);
    const logs = new logging.Preferences();
    logs.setLevel(logging.Type.BROWSER, logging.Level.SEVERE);
    options.setLoggingPrefs(logs);
    const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(new ServiceBuilder('/usr/bin/chromedriver')).build();
    const person = new Person(driver, profile);
    person.name = name;
    return person;
  }

  private name = '';

  async leave(): Promise<void> {
    await this.driver.quit();
    rmSync(this.profile, { recursive: true, force: true });
  }

  /** Opens an address; the name is written once, as the person would in the top line. */
  async open(address: string): Promise<void> {
    await this.driver.get(address);
    const known = await this.driver.executeScript<boolean>(
      `const had = localStorage.getItem('coomb.person'); localStorage.setItem('coomb.person', ${JSON.stringify(this.name)}); return had !== null;`,
    );
    if (!known) await this.driver.get(address);
  }

  /** Sets the theme that the person's system prefers: pages follow it as they stand. */
  async prefer(theme: 'light' | 'dark'): Promise<void> {
    await this.emulate('setEmulatedMedia', { features: [{ name: 'prefers-color-scheme', value: theme }] });
  }

  /** Waits until the text can be read somewhere on the page; gives the smallest element that holds it. */
  async see(text: string): Promise<WebElement> {
    const found = await this.driver.wait(async () => this.driver.executeScript<WebElement | null>(findText, text), PATIENCE, `cannot find the text "${text}"`);
    return found as WebElement;
  }

  async seeNothingOf(text: string): Promise<void> {
    await this.driver.wait(async () => !(await this.pageText()).includes(text), PATIENCE, `"${text}" is still on the page`);
  }

  pageText(): Promise<string> {
    return this.driver.executeScript<string>('return document.body.innerText');
  }

  /** Presses a button or follows a link by its name, or by what its name begins with. */
  async press(name: string): Promise<void> {
    await this.act(
      () => this.driver.executeScript<WebElement | null>(findControl, name),
      `a button or link "${name}"`,
      (element) => element.click(),
    );
  }

  async fill(label: string, text: string): Promise<void> {
    const field = await this.find(
      `//*[self::input or self::textarea or @contenteditable="true"][@aria-label=${literal(label)} or @placeholder=${literal(label)}]`,
      `a field "${label}"`,
    );
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text);
  }

  async choose(label: string, option: string): Promise<void> {
    const xpath = `//select[@aria-label=${literal(label)}]/option[normalize-space(.)=${literal(option)}]`;
    await this.act(
      async () => (await this.driver.findElements(By.xpath(xpath)))[0] ?? null,
      `"${option}" under "${label}"`,
      (element) => element.click(),
    );
  }

  async options(label: string): Promise<string[]> {
    const select = await this.find(`//select[@aria-label=${literal(label)}]`, `a choice "${label}"`);
    return Promise.all((await select.findElements(By.css('option'))).map((option) => option.getText()));
  }

  /** Hands in a file. */
  async handIn(path: string): Promise<void> {
    const input = await this.driver.wait(
      async () => (await this.driver.findElements(By.css('input[type=file]')))[0] ?? null,
      PATIENCE,
      'no place to hand in a file',
    );
    await input!.sendKeys(path);
  }

  async type(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async hold(modifier: string, key: string): Promise<void> {
    await this.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
  }

  async drag(from: WebElement, to: WebElement): Promise<void> {
    const actions = this.driver.actions({ async: true });
    await actions
      .move({ origin: from })
      .press()
      .move({ origin: from, x: 12, y: 4, duration: 60 })
      .move({ origin: to, duration: 200 })
      .move({ origin: to, x: 2, duration: 60 })
      .release()
      .perform();
  }

  /** As the browser's own zoom does: fewer pixels of the page, each of them larger. */
  async zoom(factor: number, width = 1280, height = 800): Promise<void> {
    const size = { width: Math.round(width / factor), height: Math.round(height / factor), deviceScaleFactor: factor, mobile: false };
    await this.emulate('setDeviceMetricsOverride', size);
  }

  private emulate(what: string, values: object): Promise<void> {
    // The types leave out what drivers of this browser can do.
    const driver = this.driver as unknown as { sendDevToolsCommand: (name: string, input: object) => Promise<void> };
    return driver.sendDevToolsCommand(`Emulation.${what}`, values);
  }

  find(xpath: string, what: string): Promise<WebElement> {
    return this.driver.wait(
      async () => {
        for (const element of await this.driver.findElements(By.xpath(xpath))) if (await isShown(element)) return element;
        return null;
      },
      PATIENCE,
      `cannot find ${what}`,
    ) as Promise<WebElement>;
  }

  async findAll(xpath: string): Promise<WebElement[]> {
    return this.driver.findElements(By.xpath(xpath));
  }

  /** Acts on an element, again if the page was just drawn anew under the hand. */
  private async act(look: () => Promise<WebElement | null>, what: string, action: (element: WebElement) => Promise<void>): Promise<void> {
    for (let tries = 0; ; tries++) {
      try {
        return await action((await this.driver.wait(look, PATIENCE, `cannot find ${what}`)) as WebElement);
      } catch (cause) {
        const again =
          cause instanceof error.StaleElementReferenceError ||
          cause instanceof error.ElementClickInterceptedError ||
          cause instanceof error.ElementNotInteractableError;
        if (!again || tries === 8) throw cause;
        await this.driver.sleep(250);
      }
    }
  }

  /** Requests that the page made and the server refused, since this was asked last. */
  async refusals(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
    return entries.map((entry) => entry.message).filter((message) => /status of 4\d\d/.test(message) && !message.includes('favicon'));
  }

  /** Errors the page wrote to the console, but for refused requests, which are part of some tests. */
  async complaints(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
    return entries.map((entry) => entry.message).filter((message) => !/status of 4\d\d|favicon/.test(message));
  }
}

async function isShown(element: WebElement): Promise<boolean> {
  try {
    return await element.isDisplayed();
  } catch {
    return false;
  }
}
