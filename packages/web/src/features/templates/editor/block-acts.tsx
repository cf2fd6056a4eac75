/** What is in a folder as a block: used in several places of the template, or shared by the whole house. */

import {
  addShared,
  type Block,
  blockFromFolder,
  dropBlock,
  type FolderNode,
  placeBlock,
  type Template,
  takeUp,
  usesOf,
} from '@nesting/core/template';
import { Link } from 'react-router';
import { troubleOf } from '../../../app/api';
import { many } from '../../../app/words';
import { Button, Heading, Menu } from '../../../ui';
import { blocksApi } from '../../blocks/blocks-api';

interface Props {
  readonly template: Template;
  readonly node: FolderNode;
  readonly onChange: (template: Template, what: string | null) => void;
  readonly onOpen: (id: string) => void;
}

export function BlockActs({ template, node, onChange, onOpen }: Props) {
  const { data: house = [] } = blocksApi.useBlocksQuery();
  const make = () => {
    const made = blockFromFolder(template, node.id);
    if (made.block !== null) onChange(made.template, null);
  };
  const free = house.filter((h) => !template.blocks?.some((b) => b.shared?.block === h.id));
  return (
    <section aria-label="Shared parts" className="flex flex-col items-start gap-1 text-sm">
      <Heading>Shared parts</Heading>
      {node.block !== undefined && (
        <p>
          It holds the shared part <strong className="font-semibold">{node.block}</strong>, used in{' '}
          {many(usesOf(template, node.block).length, 'place')}.
        </p>
      )}
      {node.block === undefined && node.folders !== undefined && node.id !== template.root.id && (
        <Button variant="quiet" onClick={make}>
          Make what is in it a shared part
        </Button>
      )}
      {(template.blocks ?? []).map((b) => (
        <BlockLine key={b.id} {...{ template, node, block: b, onChange, onOpen }} />
      ))}
      {free.length > 0 && node.block === undefined && (
        <Menu
          trigger={<Button variant="quiet">Put a shared part of the house in here…</Button>}
          lines={free.map((h) => ({
            words: `${h.name} (edition ${h.edition})`,
            run: () => onChange(addShared(template, node.id, h), null),
          }))}
        />
      )}
    </section>
  );
}

function BlockLine({ template, node, block, onChange, onOpen }: Props & { block: Block }) {
  const uses = usesOf(template, block.id).length;
  return (
    <span className="flex w-full flex-col border-b border-line pb-1">
      <span>
        {block.name ?? block.id} <span className="text-ink2">in {many(uses, 'place')}</span>
      </span>
      <span className="flex flex-wrap gap-x-3">
        <Button variant="quiet" className="h-6!" onClick={() => onOpen(block.id)}>
          Write in it
        </Button>
        <Button
          variant="quiet"
          className="h-6!"
          onClick={() => onChange(placeBlock(template, node.id, block.id), null)}
        >
          Put it in here
        </Button>
        {uses === 0 && (
          <Button variant="quiet" className="h-6!" onClick={() => onChange(dropBlock(template, block.id), null)}>
            Take it out
          </Button>
        )}
        <Sharing template={template} block={block} onChange={onChange} />
      </span>
    </span>
  );
}

/** The house's side of a block: shared from here, as it is there, or behind what is in force. */
function Sharing({ template, block, onChange }: Pick<Props, 'template' | 'onChange'> & { block: Block }) {
  const { data: house = [] } = blocksApi.useBlocksQuery();
  const { data: editions } = blocksApi.useBlockEditionsQuery(block.shared?.block ?? '', {
    skip: block.shared === undefined,
  });
  const [share, { isLoading, error }] = blocksApi.useShareBlockMutation();
  const ours = house.find((h) => h.id === block.shared?.block);
  const put = (changed: Block) =>
    onChange({ ...template, blocks: template.blocks?.map((b) => (b.id === block.id ? changed : b)) }, null);
  if (block.shared === undefined) {
    const give = async () => {
      const made = await share({
        template: template.id,
        body: { name: block.name ?? block.id, folders: block.folders },
      }).unwrap();
      put({ ...block, folders: made.folders, shared: { block: made.id, edition: made.edition } });
    };
    return (
      <>
        <Button
          variant="quiet"
          className="h-6!"
          disabled={isLoading}
          onClick={() => void give().catch(() => undefined)}
        >
          Share it with other templates
        </Button>
        {error && (
          <span role="alert" className="text-brick">
            {troubleOf(error)}
          </span>
        )}
      </>
    );
  }
  if (ours === undefined) return <span className="text-ink2">its shared part of the house is not here</span>;
  const behind = block.shared.edition < ours.edition;
  const take = () => {
    const base = (edition: number) => editions?.find((e) => e.edition === edition)?.folders ?? [];
    onChange(takeUp(template, ours.id, base, ours).template, null);
  };
  return (
    <>
      <Link
        to={`/blocks/${encodeURIComponent(ours.id)}`}
        className="leading-6 font-semibold text-bottle hover:underline"
      >
        Shared: edition {block.shared.edition}
      </Link>
      {behind && (
        <Button variant="quiet" className="h-6!" disabled={editions === undefined} onClick={take}>
          Take up edition {ours.edition}
        </Button>
      )}
    </>
  );
}
