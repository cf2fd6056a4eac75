/** How the folders in a folder are numbered: from where, in which steps, what is kept free. */
import type { FolderNode } from '@nesting/core/template';
import { useId } from 'react';
import { Button, Labelled, Lines, TextInput, Tick } from '../../../ui';

export interface NumberingProps {
  readonly node: FolderNode;
  readonly readOnly: boolean;
  readonly onSet: (change: Partial<FolderNode>, what?: string | null) => void;
  readonly onRenumber: () => void;
}

export function Numbering({ node, readOnly, onSet, onRenumber }: NumberingProps) {
  const id = useId();
  const { numbering } = node;
  const reserved = (numbering?.reserved ?? []).map((r) => `${r.number}${r.label ? ` ${r.label}` : ''}`).join('\n');
  return (
    <div className="flex flex-col gap-2">
      <Tick
        label="Number the folders in it"
        checked={numbering !== undefined}
        disabled={readOnly}
        onChange={(on) => onSet({ numbering: on ? { digits: 2, joiner: '_' } : undefined })}
      />
      {numbering && (
        <>
          <div className="grid grid-cols-2 gap-3">
            <Labelled id={`${id}d`} label="Digits">
              <TextInput
                id={`${id}d`}
                type="number"
                min={1}
                max={6}
                value={numbering.digits}
                onChange={(e) =>
                  onSet(
                    { numbering: { ...numbering, digits: Math.max(1, Math.min(6, Number(e.target.value))) } },
                    'digits',
                  )
                }
              />
            </Labelled>
            <Labelled id={`${id}j`} label="Then">
              <TextInput
                id={`${id}j`}
                value={numbering.joiner}
                maxLength={5}
                onChange={(e) => onSet({ numbering: { ...numbering, joiner: e.target.value } }, 'joiner')}
                className="font-mono"
              />
            </Labelled>
          </div>
          <Labelled id={`${id}r`} label="Numbers kept free, one a line">
            <Lines
              id={`${id}r`}
              key={node.id}
              rows={2}
              defaultValue={reserved}
              placeholder="4 kept for a 3D department"
              onBlur={(e) => onSet({ numbering: { ...numbering, reserved: reservedFrom(e.target.value) } })}
            />
          </Labelled>
          {!readOnly && (
            <Button className="self-start" onClick={onRenumber}>
              Number them anew
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function reservedFrom(text: string): { number: number; label?: string }[] | undefined {
  const all = text.split('\n').flatMap((line) => {
    const m = /^\s*(\d{1,6})\s*(.*?)\s*$/.exec(line);
    return m === null ? [] : [{ number: Number(m[1]), ...(m[2] ? { label: m[2] } : {}) }];
  });
  return all.length === 0 ? undefined : all;
}
