/** `nesting COMMAND …`: one file a command; no database needed. */
import { carry } from './commands/carry';
import { check } from './commands/check';
import { compare } from './commands/compare';
import { create } from './commands/create';
import { derive } from './commands/derive';
import { expand } from './commands/expand';
import { learn } from './commands/learn';
import { name } from './commands/name';
import { pack } from './commands/pack';
import { prove } from './commands/prove';
import { read } from './commands/read';
import { repair } from './commands/repair';
import { sort } from './commands/sort';
import { undo } from './commands/undo';
import { unpack } from './commands/unpack';
import { verify } from './commands/verify';
import { EXIT, type Exit, Unusable } from './fail';
import { type Options, optionsOf } from './input';
import { say } from './output';

const COMMANDS: Readonly<Record<string, (options: Options) => Promise<Exit>>> = {
  name,
  read,
  prove,
  learn,
  expand,
  create,
  check,
  carry,
  compare,
  derive,
  pack,
  repair,
  sort,
  undo,
  unpack,
  verify,
};

const HELP = `nesting COMMAND …

  name RULE                       write one name
  read RULE < names               read names, a JSON line for each
  prove RULE                      whether a name could be read in two ways
  learn < names                   a convention file from sample names
  derive DIR                      a template file from a project that is there
  derive --listing FILE           the same from a listing of one
  expand TEMPLATE                 print the plan of a project
         [--as paths|json|outline|sh|powershell|zip]
  create TEMPLATE --into PARENT   write a project  [--dry-run]
  check [TEMPLATE] DIR            compare a project with its rules  [--names-only]
  check TEMPLATE --listing FILE   compare a listing
         [--as text|json|csv|sarif]
  carry DIR --to PARENT           the next project from this one  [--dry-run]
         [--values FILE] [--template FILE] [--way FILE] [--as text|json|csv]
  compare DIR DIR                 two folders side by side  [--as text|json|csv]
  pack DIR --to FILE|DIR          a package with its checksums  [--dry-run]
         [--as zip|bag|bag-zip] [--within FOLDER] [--without FAMILY,…]
         [--current] [--in-house]
  verify FILE|DIR                 whether a package is whole  [--as text|json]
  unpack FILE|DIR --into PARENT   a project from its package
  repair [TEMPLATE] DIR           put findings right: what is sure  [--dry-run]
         [--only RULE,…] [--confidence sure|likely]
         [--as text|json|csv|sh|powershell]
  sort --from DIR --into DIR      bring loose files to their places  [--dry-run]
         [--second DIR] [--set field=value]… [--move] [--as text|json|csv]
  undo DIR [BATCH]                list batches, or take one back  [--dry-run]
         [--from DIR] [--second DIR]

RULE is a convention file, or -p PATTERN. Every command takes
--values FILE, --registers FILE and --set field=value; --json is --as json.
Status: 0 clean or done, 1 findings or refusals, 2 unusable input.
`;

async function main(args: readonly string[]): Promise<Exit> {
  const [command = '', ...rest] = args;
  if (command === '' || command === 'help' || command === '--help') {
    process.stdout.write(HELP);
    return command === '' ? EXIT.unusable : EXIT.ok;
  }
  const run = Object.hasOwn(COMMANDS, command) ? COMMANDS[command] : undefined;
  if (run === undefined) throw new Unusable(`no command is called ${command}; nesting help lists them`);
  return run(optionsOf(rest));
}

// Whoever reads only the first lines of a long output closes the pipe: that is no error.
process.stdout.on('error', (error: NodeJS.ErrnoException) =>
  process.exit(error.code === 'EPIPE' ? EXIT.ok : EXIT.unusable),
);

main(process.argv.slice(2)).then(
  (exit) => {
    process.exitCode = exit;
  },
  (error: unknown) => {
    say(`nesting: ${error instanceof Unusable ? error.message : `this cannot be worked out (${plainly(error)})`}`);
    process.exitCode = EXIT.unusable;
  },
);

/** What went wrong, in a line: where in the program is of no use to who runs it. */
function plainly(error: unknown): string {
  if (error instanceof RangeError) return 'it is nested too deeply, or too large';
  return error instanceof Error ? (error.message.split('\n')[0] ?? '') : String(error);
}
