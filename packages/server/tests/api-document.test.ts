/** The examples for scripts do what they say, on a real server; and the document is there for anybody. */
import { execFile } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ENDPOINTS } from '@nesting/contract';
import { pino } from 'pino';
import { openWorld, type Running, startServer } from '../src/index';
import { openTestWorld, type TestWorld } from './world';

const run = promisify(execFile);

let t: TestWorld;
let server: Running;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_BATCHES: 'elsewhere' });
  const log = pino({ level: 'silent' });
  server = await startServer(await openWorld({ ...t.config, port: 0, worksBatches: true }, log), log);
});
afterAll(async () => {
  await server.stop();
  await t.close();
});

test('each example runs as it stands', async () => {
  const made = await t.ask('coordinator', 'POST', '/api/me/keys', { name: 'script', days: 1 });
  const { key } = (await made.json()) as { key: string };
  const env = { ...process.env, NESTING: `http://127.0.0.1:${server.port}`, KEY: key };
  const examples = [...readFileSync('docs/api.md', 'utf8').matchAll(/```sh\n([\s\S]*?)```/g)]
    .map((match) => match[1] ?? '')
    .filter((text) => !text.includes('export KEY'));
  const said: string[] = [];
  for (const text of examples) said.push((await run('bash', ['-euo', 'pipefail', '-c', text], { env })).stdout);
  const [start, name, findings, change, health] = said;
  expect(start).toContain('"state": "running"');
  expect(name).toMatch(/^20_pieces\/window-A\/26201_\S+\.usda\n$/);
  expect(findings).toContain('"total": 0');
  expect(change).toContain('"isDone": true');
  expect(health).toContain('"isWell": true');
  expect(existsSync(path.join(t.studio, '26201_MSW_paper-harbour/20_pieces/window-C'))).toBe(true);
});

test('the document is open to anybody, and has a line for each row of the table', async () => {
  const answer = await fetch(`http://127.0.0.1:${server.port}/api/openapi.json`);
  const document = (await answer.json()) as { paths: Record<string, Record<string, { operationId: string }>> };
  const operations = Object.values(document.paths).flatMap((path) => Object.values(path).map((o) => o.operationId));
  expect(operations.sort()).toEqual(Object.keys(ENDPOINTS).sort());
});
