/** Prints every word the screens say, file by file: to be read once in a row. usage: node scripts/words.mjs */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const ts = createRequire(import.meta.url)('typescript');
const files = execFileSync('git', ['ls-files', 'packages/web/src/**/*.ts*', 'packages/core/src/words/*.ts'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => file !== '' && !file.includes('.test.'));

/** Text that a person reads: it has a blank or begins with a capital, and is no class, path or pattern. */
const isSaid = (text) =>
  /[a-z]/i.test(text) && !/^[./@#]|[{}<>=]|:\w|\b(flex|text|border|bg|min|max)-/.test(text) && /^[A-Z“]|\s/.test(text);

for (const file of files) {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const said = new Set();
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    const text = ts.isJsxText(node) || ts.isStringLiteralLike(node) || ts.isTemplateHead(node) ? node.text : null;
    const plain = text?.replace(/\s+/g, ' ').trim() ?? '';
    if (isSaid(plain)) said.add(plain);
    ts.forEachChild(node, visit);
  };
  visit(source);
  if (said.size > 0) process.stdout.write(`\n${file}\n${[...said].map((words) => `  ${words}\n`).join('')}`);
}
