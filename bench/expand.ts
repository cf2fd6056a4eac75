/** Expanding a template to 2,000 lines: a keystroke must show at once. */
import { NO_REGISTERS } from '@nesting/core/name';
import { compileTemplate, normaliseTemplate } from '@nesting/core/template';
import { interleave, line } from './measure';

export function benchExpand(): void {
  const template = normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'Large',
    conventions: [],
    fields: [
      { key: 'title', type: 'text' },
      { key: 'surfaces', type: 'list', of: { type: 'text' } },
      { key: 'scenes', type: 'list', of: { type: 'text', like: 's00' }, within: 'surfaces' },
    ],
    root: {
      name: '{number}_{title:kebab}',
      numbering: { digits: 2, joiner: '_' },
      folders: [
        {
          name: 'motion',
          folders: [
            {
              name: '{surface:kebab}',
              onePer: { list: 'surfaces', as: 'surface' },
              folders: [
                {
                  name: '{scene}',
                  onePer: { list: 'scenes', as: 'scene' },
                  folders: [{ name: 'working' }, { name: 'renders' }, { name: '{number}_{surface:kebab}_{scene}' }],
                },
              ],
            },
          ],
        },
        { name: 'sound' },
        { name: 'masters' },
      ],
    },
  });
  const expander = compileTemplate(template, NO_REGISTERS);
  const surfaces = Array.from({ length: 20 }, (_, i) => `Surface ${i}`);
  let letter = 0;
  let lines = 0;
  const time = interleave(
    [
      {
        name: 'expand',
        run: () => {
          // Another title at each run, as at each keystroke.
          const expansion = expander.expand({
            number: '26014',
            title: `Harbour ${letter++}`,
            surfaces,
            scenes: 's01..s25',
          });
          lines = expansion.lines.length;
          return undefined;
        },
      },
    ],
    21,
  ).expand;
  line(`expand a template to ${lines} lines`, `${time.toFixed(1)} ms`, '5 ms', time <= 5);
}
