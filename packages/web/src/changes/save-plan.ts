/** Plans taken away as files. */
import type { PlanForm } from '@nesting/contract';

export const PLAN_FORM_WORDS: readonly (readonly [PlanForm, string])[] = [
  ['text', 'As a text'],
  ['csv', 'As a table (CSV)'],
  ['json', 'As JSON'],
  ['sh', 'As a script for sh'],
  ['powershell', 'As a script for PowerShell'],
];

/** A file that was answered, under the name it came with. */
export async function saveReply(response: Response): Promise<void> {
  if (!response.ok) return;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = decodeURIComponent(
    /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'plan',
  );
  link.click();
  URL.revokeObjectURL(link.href);
}
