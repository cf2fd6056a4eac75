import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** What keeps somebody from using the page as it is now. */
export const faults = async (page: Page): Promise<string[]> =>
  (await new AxeBuilder({ page }).analyze()).violations.map((v) => `${v.id}: ${v.nodes[0]?.target.join(' ')}`);
