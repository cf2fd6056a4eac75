/** Names that one page has learned from for another: what was found goes back to the page that asked. */
import { fieldSchema } from '@nesting/contract';
import { z } from 'zod';

const NAMES = 'nesting-learn';
const LEARNED = 'nesting-learned';

const learnedSchema = z.object({
  /** The address of the page that asked. */
  back: z.string(),
  pattern: z.string(),
  fields: z.array(fieldSchema),
  families: z.array(z.string()).optional(),
});
export type LearnedFor = z.infer<typeof learnedSchema>;

/** More characters outlive no reload: they can be given again. */
const MOST_KEPT = 200_000;

export const namesToLearn = (): string => sessionStorage.getItem(NAMES) ?? '';

export function keepNames(text: string): void {
  if (text.length < MOST_KEPT) sessionStorage.setItem(NAMES, text);
}

/** Where names are learned from for a page; it is gone back to. */
export function addressToLearn(names: readonly string[], back: string): string {
  keepNames(firstOf([...new Set(names)]).join('\n'));
  return `/conventions/learn?${new URLSearchParams({ back })}`;
}

/** As many as are kept. */
function firstOf(names: readonly string[]): readonly string[] {
  let length = 0;
  return names.filter((name) => {
    length += name.length + 1;
    return length < MOST_KEPT;
  });
}

/** Only a page of a project asks; an address from outside is none. */
export const backTo = (params: URLSearchParams): string | null => {
  const back = params.get('back');
  return back !== null && /^\/projects\/[0-9a-f-]+\/intake\?/.test(back) ? back : null;
};

export const giveLearned = (learned: LearnedFor): void => sessionStorage.setItem(LEARNED, JSON.stringify(learned));

/** What was learned for this page; `null` where nothing was. */
export function learnedFor(back: string): LearnedFor | null {
  try {
    const learned = learnedSchema.safeParse(JSON.parse(sessionStorage.getItem(LEARNED) ?? 'null'));
    return learned.success && learned.data.back === back ? learned.data : null;
  } catch {
    return null;
  }
}

export const forgetLearned = (): void => sessionStorage.removeItem(LEARNED);
