import { type CheckOutcome, checkListing } from '@nesting/core/check';
import { commonRoot, foldersFrom, parseListing } from '@nesting/core/listing';
import { ProjectRules } from '@nesting/core/project';
import { findingsCsv, findingsJson, findingsSarif, findingsText } from '@nesting/core/report';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, textOf } from '../input';
import { print } from '../output';
import { checkFolder, inputOf, projectFolder, sayPlan } from '../project-folder';

const FORMS = { text: findingsText, json: findingsJson, csv: findingsCsv, sarif: findingsSarif } as const;

/** Compares a project's folder, or a listing of it, with the rules. */
export async function check(options: Options): Promise<Exit> {
  const form = (options.as ?? 'text') as keyof typeof FORMS;
  if (!Object.hasOwn(FORMS, form)) throw new Unusable(`--as ${options.as}: one of ${Object.keys(FORMS).join(', ')}`);
  const outcome =
    options.listing === undefined
      ? await checkFolder(projectFolder(options), options.namesOnly)
      : checkText(options, options.listing);
  await print(FORMS[form](outcome));
  return outcome.findings.length > 0 ? EXIT.findings : EXIT.ok;
}

function checkText(options: Options, listing: string): CheckOutcome {
  const input = inputOf(options, options.positionals[0], null);
  const rules = new ProjectRules(input);
  sayPlan(rules.expansion, input.template);
  let paths: ReturnType<typeof parseListing>;
  try {
    paths = parseListing(textOf(listing));
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw new Unusable(`${listing}: no listing that can be understood`);
  }
  // A listing made from outside the project has its folder in front of every line.
  const root = commonRoot(paths);
  const planned = rules.expansion.lines.some((l) => l.depth === 1 && l.name === root);
  return checkListing(rules, foldersFrom(paths, root !== null && !planned ? root : null));
}
