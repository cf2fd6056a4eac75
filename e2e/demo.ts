/** A demo of its own for the browser tests: own database, own volumes, started from the built program. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, test as base, type Page } from '@playwright/test';
import pg from 'pg';

export interface Demo {
  readonly address: string;
  /** The volume `studio` on the real disk. */
  readonly studio: string;
}

interface Running {
  readonly port: number;
  stop(): Promise<void>;
}

async function sql(url: string, text: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(text).finally(() => client.end());
}

export const test = base.extend<{ as: (name: string) => Promise<Page> }, { demo: Demo }>({
  demo: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner reads which fixtures are asked for from the pattern
    async ({}, use) => {
      const url = process.env.NESTING_TEST_DATABASE;
      if (url === undefined) throw new Error('no database for tests: run npm test');
      const database = `e_${randomUUID().replaceAll('-', '')}`;
      await sql(url, `create database ${database}`);
      const data = mkdtempSync(path.join(tmpdir(), 'nesting-browser-'));
      const port = 20_000 + Math.floor(Math.random() * 20_000);
      const built = (await import(path.join(process.cwd(), 'dist/demo.js'))) as {
        startDemo(options: object): Promise<Running>;
      };
      const running = await built.startDemo({
        databaseUrl: url.replace(/\/[^/]*$/, `/${database}`),
        secret: 'x'.repeat(40),
        port,
        data,
        say: () => undefined,
      });
      await use({ address: `http://127.0.0.1:${port}`, studio: path.join(data, 'volumes/studio') });
      await running.stop();
      await sql(url, `drop database ${database} with (force)`);
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  /** A page of somebody's own, signed in by one click; errors in it fail the test. */
  as: async ({ browser, demo }, use) => {
    const contexts: BrowserContext[] = [];
    const errors: string[] = [];
    await use(async (name) => {
      const context = await browser.newContext({
        baseURL: demo.address,
        viewport: { width: 1280, height: 800 },
        locale: 'en-GB',
        permissions: ['clipboard-read', 'clipboard-write'],
      });
      contexts.push(context);
      const page = await context.newPage();
      page.on('pageerror', (error) => errors.push(error.message));
      await page.goto('/');
      await page.getByRole('button', { name: new RegExp(name) }).click();
      await page.getByRole('navigation', { name: 'The line of work' }).waitFor();
      return page;
    });
    for (const context of contexts) await context.close();
    if (errors.length > 0) throw new Error(`errors in the page: ${errors.join('; ')}`);
  },
});

/** A project’s id, by its number. */
export const idOf = async (page: Page, number: string): Promise<string> =>
  (
    (await (await page.request.get(`/api/projects?find=${number}`)).json()) as {
      rows: { id: string; number: string }[];
    }
  ).rows.find((p) => p.number === number)?.id ?? '';

/** A project’s folder on the volume, by its number. */
export const folderOf = (studio: string, number: string): string =>
  path.join(studio, readdirSync(studio).find((n) => n.startsWith(number)) ?? '');

export { expect } from '@playwright/test';
