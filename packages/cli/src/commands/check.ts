import { type CheckOutcome, checkListing } from '@nesting/core/check';
import { alignListing, type FolderListing, foldersInText } from '@nesting/core/listing';
import { ProjectRules, rootPlanOf } from '@nesting/core/project';
import { findingsCsv, findingsJson, findingsSarif, findingsText } from '@nesting/core/report';
import { alignedWords } from '@nesting/core/words';
import { EXIT, type Exit, Unusable } from '../fail';
import { listingOf, type Options } from '../input';
import { print, say } from '../output';
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
  const aligned = alignListing(listed(listing), rootPlanOf(rules));
  const told = alignedWords(aligned);
  if (told !== null) say(`note: ${told}`);
  return checkListing(rules, aligned.folders);
}

function listed(file: string): FolderListing[] {
  const folders = listingOf(file, foldersInText);
  if (folders.every((folder) => folder.folders.length + folder.files.length === 0))
    throw new Unusable(`${file}: no paths are in it`);
  return folders;
}
