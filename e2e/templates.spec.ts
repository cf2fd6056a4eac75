/** Templates written by keyboard, derived from what is there, taken out and in, put in force and started from. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { zipOf } from '../packages/server/src/flows/rules/zip';
import { faults } from './axe';
import { expect, idOf, test } from './demo';

interface Node {
  readonly name?: string;
  readonly number?: number;
  readonly onePer?: { readonly list: string };
  readonly folders?: readonly Node[];
}

/** The demo's facade show as an outline to type: depth, number and name of each folder. */
function outlineOf(root: Node): { depth: number; typed: string }[] {
  const out: { depth: number; typed: string }[] = [];
  const walk = (node: Node, depth: number): void => {
    for (const child of node.folders ?? []) {
      out.push({
        depth,
        typed: `${child.number === undefined ? '' : `${String(child.number).padStart(2, '0')}_`}${child.name}`,
      });
      walk(child, depth + 1);
    }
  };
  walk(root, 0);
  return out;
}

const facade = JSON.parse(readFileSync('demo/templates/facade-show.nest.json', 'utf8')) as { root: Node };
const plain = (node: Node): Node => ({
  name: node.name as string,
  ...(node.number !== undefined && { number: node.number }),
  ...(node.folders?.length && { folders: node.folders.filter((f) => f.name !== undefined).map(plain) }),
});

async function newTemplate(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Templates', exact: true }).click();
  await page.getByRole('button', { name: 'New template' }).click();
  await expect(page).toHaveURL(/\/templates\/new-template(-\d+)?\/edit/);
  await page.getByRole('treeitem').first().click();
}

const LABELS: Readonly<Record<string, string>> = {
  surfaces: 'Surfaces',
  scenes: 'Scenes',
  nights: 'Test nights',
  stands: 'Stands',
  languages: 'Languages',
  issues: 'Issues',
};

/** Folders made once for each entry of a list, by the name they have in the file. */
function madeOncePer(root: Node): { name: string; list: string }[] {
  const out: { name: string; list: string }[] = [];
  const walk = (node: Node): void => {
    if (node.onePer) out.push({ name: node.name as string, list: node.onePer.list });
    node.folders?.forEach(walk);
  };
  walk(root);
  return out;
}

/** By keyboard: opens the list, goes down to the words, takes them. */
async function choose(page: Page, list: string, words: string): Promise<void> {
  await page.getByRole('combobox', { name: list, exact: true }).press('Enter');
  const wanted = page.getByRole('option', { name: words, exact: true });
  await wanted.waitFor();
  const options = page.getByRole('option');
  await page.keyboard.press('Home');
  await expect(options.first()).toBeFocused();
  const index = (await options.allTextContents()).indexOf(words);
  for (let i = 1; i <= index; i++) {
    await page.keyboard.press('ArrowDown');
    await expect(options.nth(i)).toBeFocused();
  }
  await page.keyboard.press('Enter');
  await expect(options).toHaveCount(0);
}

test('the facade show is typed from nothing with the keyboard, put in force and started from', async ({ as }) => {
  // What is promised: by keyboard, in under five minutes.
  test.setTimeout(300_000);
  const page = await as('Ines Thorvald');
  await newTemplate(page);
  // Blocks have no name of their own: what is in them is written elsewhere.
  const root = plain(facade.root);
  let depth = 0;
  for (const [i, line] of outlineOf(root).entries()) {
    await page.keyboard.press('Enter');
    // A new row stands beside the one before it, or first in the root.
    for (let d = i === 0 ? 0 : depth; d < line.depth; d++) await page.keyboard.press('Tab');
    for (let d = depth; d > line.depth; d--) await page.keyboard.press('Shift+Tab');
    await page.keyboard.type(line.typed);
    depth = line.depth;
  }
  await expect(page.getByText('Draft kept.')).toBeVisible();
  const id = new URL(page.url()).pathname.split('/')[2] as string;
  const draft = async () =>
    (
      (await (await page.request.get('/api/templates')).json()) as { id: string; draft: { template: { root: Node } } }[]
    ).find((t) => t.id === id)?.draft.template as { root: Node; fields: { key: string; type: string }[] };
  expect(plain((await draft()).root).folders).toEqual(root.folders);

  // What is asked for, and what is made for each of it.
  for (const [key, label] of Object.entries(LABELS)) {
    await page.getByRole('button', { name: 'Ask for something more…' }).press('Enter');
    await page.getByRole('textbox', { name: 'Label', exact: true }).fill(label);
    await page.getByRole('textbox', { name: 'Its name in patterns' }).fill(key);
    await page.keyboard.press('Tab');
    await choose(page, 'It is', 'A list');
    if (key === 'nights') await choose(page, 'Of', 'A date');
  }
  for (const { name, list } of madeOncePer(facade.root)) {
    await page.getByLabel('Find in the hierarchy').fill(name);
    await page.getByRole('treeitem', { name, exact: true }).first().click();
    await expect(page.locator('input[data-row]')).toBeFocused();
    await choose(page, 'Once for each of', LABELS[list] as string);
    await expect(page.getByRole('treeitem', { name, exact: true }).first()).toContainText('one per');
  }
  await page.getByLabel('Find in the hierarchy').fill('');
  await page.getByLabel('Lay a sample over it').click();
  await expect(page.getByText(/the sample makes \d+ folders/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Template' }).fill('Facade show, typed');
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Put edition 1 in force…' }).click();
  await page.getByLabel('What changed, in a sentence').fill('Typed from nothing.');
  await page.getByRole('button', { name: 'Put edition 1 in force', exact: true }).click();
  await expect(page.getByText('Edition 1 is in force.')).toBeVisible();
  await expect(page.getByText('Typed from nothing.')).toBeVisible();
  await page.getByRole('button', { name: 'Start a project from it' }).click();
  await page.getByLabel('Surfaces').fill('west-front, old-mill');
  await expect(page.getByRole('tree')).toContainText('old-mill');

  // A second edition, compared with the first, which then becomes the draft of a third.
  await page.goto(`/templates/${id}/edit`);
  await page.getByLabel('What it is for').first().fill('Shows on buildings.');
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Put edition 2 in force…' }).click();
  await page.getByRole('button', { name: 'Put edition 2 in force', exact: true }).click();
  await expect(page.getByText('Edition 2 is in force.')).toBeVisible();
  await page.getByText('1 difference from edition 1').click();
  await expect(page.getByText('The template: what it is for changed')).toBeVisible();
  await page.getByRole('button', { name: 'Make it the draft' }).click();
  await expect(page.getByText('draft of edition 3')).toBeVisible();
});

test('the outline: paste, move, several at once, undo without end, and a draft that survives', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await newTemplate(page);
  await page.keyboard.press('Enter');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '.\n├── 01_paper\n│   ├── quotes\n│   └── permits\n└── 40_motion\n    └── working\n');
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  const names = async () =>
    (
      await page
        .getByRole('treeitem')
        .evaluateAll((rows) => rows.map((r) => `${r.getAttribute('aria-level')} ${r.getAttribute('aria-label')}`))
    ).slice(1);
  await expect.poll(names).toEqual(['2 01_paper', '3 quotes', '3 permits', '2 40_motion', '3 working']);
  await page.getByRole('treeitem', { name: 'permits' }).click();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(names).toEqual(['2 01_paper', '3 permits', '3 quotes', '2 40_motion', '3 working']);
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+g');
  await expect.poll(names).toEqual(['2 01_paper', '3 group', '4 permits', '4 quotes', '2 40_motion', '3 working']);
  await page.keyboard.type('s of papers');
  await page.keyboard.press('Control+d');
  await expect.poll(async () => (await names()).filter((n) => n.includes('groups of papers'))).toHaveLength(2);
  await expect(page.getByText('Draft kept.')).toBeVisible();
  const end = await names();
  await page.reload();
  await expect.poll(names).toEqual(end);
  await page.getByRole('treeitem').nth(1).click();
  await page.keyboard.press('Alt+ArrowDown');
  await page.keyboard.press('Control+z');
  await expect.poll(names).toEqual(end);
  await page.getByRole('button', { name: 'Discard the draft…' }).click();
  await page.getByRole('button', { name: 'Discard it', exact: true }).click();
  await expect(page).toHaveURL(/\/templates$/);
});

test('a template is derived from a listing of a project, and taken out and in again', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/templates/derive');
  const lines = ['north', 'south-gate', 'quay'].flatMap((place) =>
    ['s01', 's02'].flatMap((scene) =>
      ['working', 'renders'].map((f) => `26031_OTM_tide-table/02_motion/${place}/${scene}/${f}/`),
    ),
  );
  await page
    .getByLabel('A listing')
    .fill(['26031_OTM_tide-table/01_paper/quotes/', ...lines, '26031_OTM_tide-table/04_masters/'].join('\n'));
  await expect(page.getByText('With its own values it makes 26 folders.')).toBeVisible();
  await expect(page.getByLabel('Asked for')).toContainText('north, quay, south-gate');
  await page.getByLabel('Name of the template').fill('Tide table');
  await page.getByRole('button', { name: 'Take it into the editor' }).click();
  await expect(page).toHaveURL(/\/templates\/tide-table\/edit$/);
  await expect(page.getByRole('treeitem', { name: /scene/ })).toContainText('one per scene');
  // A project that is there does as well, with its files.
  await page.goto('/templates/derive');
  await page.getByRole('button', { name: 'From a project…' }).click();
  await page.getByRole('menuitem', { name: '26014 Harbour Lights', exact: true }).click();
  await expect(page.getByLabel('Conventions found')).toContainText('_{scene}_');
  await expect(page.getByLabel('Asked for')).toContainText('west-front');
  await page.goto('/templates');
  await page.getByRole('button', { name: 'More for Window piece' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as a zip' }).click(),
  ]);
  const given = { name: 'window-piece.zip', mimeType: 'application/zip', buffer: readFileSync(await download.path()) };
  await page.getByRole('link', { name: 'Take in a file…' }).click();
  await page.getByLabel('A file with rules').setInputFiles(given);
  await expect(page.getByLabel('What is in the file')).toContainText('template, the same here');
  await expect(page.getByRole('button', { name: 'Take them in' })).toBeDisabled();
  await page.getByLabel('A file with rules').setInputFiles({
    name: 'odd.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"something/else"}'),
  });
  await expect(page.getByRole('alert')).toBeVisible();
  // Another house's way of the same template: left out unless told, then beside ours as a draft.
  const mine = (
    (await (await page.request.get('/api/templates')).json()) as { id: string; template: { purpose?: string } }[]
  ).find((t) => t.id === 'window-piece')?.template;
  await page.getByLabel('A file with rules').setInputFiles({
    name: 'theirs.nest.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ ...mine, purpose: 'Shop windows, for a week.' })),
  });
  await page.getByRole('button', { name: /Window piece/ }).click();
  await expect(page.getByText('The template: what it is for changed')).toBeVisible();
  await expect(page.getByText('Nothing would be taken in.')).toBeVisible();
  await choose(page, 'What is done with Window piece', 'beside ours, as a draft');
  await page.getByRole('button', { name: 'Take them in' }).click();
  await expect(page.getByLabel('What was taken in')).toContainText('window-piece-taken-in');
});

test('a folder of a volume and a zip give a template too, and its questions are answered', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/templates/derive');
  await page.getByRole('button', { name: 'From a volume…' }).click();
  await page.getByRole('button', { name: '26014_QHT_harbour-lights' }).click();
  await page.getByRole('button', { name: 'Derive from this folder' }).click();
  await expect(page.getByText('26014_QHT_harbour-lights was listed.')).toBeVisible();
  await expect(page.getByText(/With its own values it makes \d+ folders/)).toBeVisible();
  const zip = await zipOf(
    new Map(
      ['a', 'b', 'c', 'd']
        .flatMap((n) => ['in', 'out'].map((f) => `26077_x/${n}/${f}/clip_${n}.mov`))
        .concat('26077_x/a/in/holiday/me.jpg', '26077_x/brief.md')
        .map((name) => [name, Buffer.from(`# ${name}`)]),
    ),
  );
  await page
    .getByLabel('The names in a zip')
    .setInputFiles({ name: 'old.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
  await expect(page.getByText('10 names read in old.zip.')).toBeVisible();
  await expect(page.getByRole('heading', { name: '2 questions' })).toBeVisible();
  await expect(page.getByRole('tree')).toContainText('holiday');
  await choose(page, 'Answer for a/in/holiday', 'leave it out');
  await expect(page.getByRole('tree')).not.toContainText('holiday');
  await choose(page, 'Answer for brief.md', 'yes, each project starts with them');
  await page.getByLabel('Name of the template').fill('From an old zip');
  await page.getByRole('button', { name: 'Take it into the editor' }).click();
  await expect(page).toHaveURL(/\/templates\/from-an-old-zip\/edit$/);
  await page.getByRole('treeitem').first().click();
  await page.getByRole('button', { name: 'Look into it' }).click();
  await expect(page.getByLabel('What is in it')).toContainText('# 26077_x/brief.md');
});

test('a shared part of the house is changed once, and each template takes it up', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.getByRole('link', { name: 'Shared parts', exact: true }).click();
  await page.getByRole('link', { name: 'Paperwork' }).click();
  await expect(page.getByLabel('Where it is used')).toContainText('Dome film');
  // The dome film has words of its own for the permits: that is a clash once the block changes them too.
  await page.getByRole('treeitem', { name: 'permits' }).click();
  await page.getByLabel('What it is for').fill('Every permission in writing.');
  await page.getByRole('treeitem', { name: 'rights' }).click();
  await page.keyboard.press('Enter');
  await page.keyboard.type('insurance');
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Put edition 2 in force…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Templates that hold it')).toContainText('New folder');
  await choose(page, 'permits: what it is for', "the shared part's: Every permission in writing.");
  await dialog.getByLabel('What changed, in a sentence').fill('Insurance has its folder.');
  await dialog.getByRole('button', { name: 'Put edition 2 in force', exact: true }).click();
  await expect(page.getByText('Edition 2 is in force.')).toBeVisible();
  await page.getByLabel('Where it is used').getByRole('link', { name: 'Dome film' }).click();
  await expect(page.getByRole('tree')).toContainText('insurance');
  await expect(page.getByText(/Insurance has its folder/)).toBeVisible();
  await page.getByRole('button', { name: 'Compare as a tree' }).click();
  await expect(page.getByRole('heading', { name: /^Edition \d+ beside edition/ })).toBeVisible();
});

test('two people in one draft: the later one sees what the other changed, and nothing is lost silently', async ({
  as,
}) => {
  const [mine, theirs] = [await as('Ines Thorvald'), await as('Ines Thorvald')];
  const purpose = (page: Page) => page.getByLabel('What it is for').first();
  for (const page of [mine, theirs]) {
    await page.goto('/templates/dome-film/edit');
    await purpose(page).waitFor();
  }
  await purpose(theirs).fill('Films for round rooms.');
  await expect(theirs.getByText('Draft kept.')).toBeVisible();
  await mine.getByRole('textbox', { name: 'Template' }).fill('Dome film, long');
  await expect(mine.getByText(/Somebody else has changed this draft/)).toBeVisible();
  await mine.getByRole('button', { name: 'See the other version' }).click();
  await expect(mine.getByText(/what it is for/)).toBeVisible();
  await expect(mine.getByRole('textbox', { name: 'Template' })).toHaveValue('Dome film, long');
  await mine.getByRole('button', { name: 'Keep mine' }).click();
  await expect(mine.getByText('Draft kept.')).toBeVisible();
  await mine.reload();
  await expect(mine.getByRole('textbox', { name: 'Template' })).toHaveValue('Dome film, long');
  await mine.getByRole('button', { name: 'Checks, paths and setup sheet…' }).click();
  await mine.getByLabel('Longest path, characters').fill('200');
  await expect(mine.getByText('Draft kept.')).toBeVisible();
  await mine.goto('/templates/dome-film/print');
  await expect(mine.getByRole('heading', { name: 'How files are called' })).toBeVisible();
});

test('a shared part is made of what is in a folder, put in another place, and written in once for both', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/templates/sound-only-walk/edit');
  const folder = page.getByRole('treeitem').filter({ hasText: /[a-z]/ });
  await folder.first().waitFor();
  const holder = page.locator('[role=treeitem][aria-expanded=true][aria-level="2"]').first();
  await holder.click();
  const name = (await holder.getAttribute('aria-label')) ?? '';
  await page.getByRole('button', { name: 'Make what is in it a shared part' }).click();
  await expect(page.getByLabel('Shared parts')).toContainText('in 1 place');
  await page.getByRole('treeitem').first().click();
  await page.getByRole('button', { name: 'Put it in here' }).click();
  await expect(page.getByLabel('Shared parts')).toContainText('in 2 places');
  await page.getByRole('button', { name: 'Write in it' }).click();
  await expect(page.getByText(/^The shared part /)).toBeVisible();
  await page.getByRole('treeitem').first().click();
  await page.keyboard.press('Enter');
  await page.keyboard.type('for both');
  await page.getByRole('button', { name: 'Back to the whole' }).click();
  await page.getByLabel('Lay a sample over it').click();
  await expect(page.getByText(/the sample makes/)).toBeVisible();
  expect(name).not.toBe('');
  await expect(page.getByText('Draft kept.')).toBeVisible();
  const drafts = (await (await page.request.get('/api/templates')).json()) as {
    id: string;
    draft: { template: { blocks: { folders: { name: string }[] }[] } } | null;
  }[];
  expect(JSON.stringify(drafts.find((t) => t.id === 'sound-only-walk')?.draft?.template.blocks)).toContain('for both');
  await page.getByRole('button', { name: 'Discard the draft…' }).click();
  await page.getByRole('button', { name: 'Discard it', exact: true }).click();
  await expect(page.getByText(/^Edition \d+ is in force\.$/)).toBeVisible();
});

test('what must be delivered is said of a folder and kept, and stands on the sheet of a project', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/templates/window-piece/edit?line=masters');
  await page.getByRole('button', { name: 'Add what must be delivered' }).click();
  const form = page.getByRole('region', { name: 'To be delivered' });
  await form.getByLabel('What', { exact: true }).fill('Loop');
  await choose(page, 'For each of, of Loop', 'Windows');
  await choose(page, 'Due by, of Loop', 'Opens');
  await form.getByLabel('Days', { exact: true }).fill('3');
  await choose(page, 'Before or after that date', 'before');
  expect(await faults(page)).toEqual([]);
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.reload();
  await expect(form.getByLabel('What', { exact: true })).toHaveValue('Loop');
  await expect(form.getByLabel('Days', { exact: true })).toHaveValue('3');
  const sheet = await as('Bram Okonjo');
  await sheet.goto(`/projects/${await idOf(sheet, '26014')}?view=sheet`);
  await expect(sheet.getByRole('region', { name: 'What is due' })).toContainText('Master pier');
});
