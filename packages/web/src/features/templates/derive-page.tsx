/**
 * A template from what is there: a pasted listing, a list in a file, or a folder on this computer, of which only the
 * names are read.
 */

import { useId, useState } from 'react';
import { Link } from 'react-router';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Labelled, Lines, TextInput } from '../../ui';
import { DeriveSources } from './derive-sources';
import { DerivedFacts } from './derived-facts';
import { type Derivation, useDerivation } from './use-derivation';

export function DerivePage() {
  const id = useId();
  const state = useDerivation();
  const { text, title, said, ready, name } = state;
  return (
    <Columns
      id="derive"
      labels={['What is there', 'The template of it', 'Questions']}
      given={
        <div className="flex flex-col gap-3">
          <Link to="/templates" className="text-sm text-bottle hover:underline">
            All templates
          </Link>
          <h1 className="text-xl font-semibold">Derive a template</h1>
          <Labelled
            id={id}
            label="A listing"
            help="Paths as find prints them, an indented outline, a drawn tree, CSV or JSON"
          >
            <Lines
              id={id}
              rows={14}
              value={text}
              onChange={(e) => state.type(e.target.value)}
              placeholder="Paste a listing here"
            />
          </Labelled>
          <DeriveSources onSource={state.give} onTrouble={state.setSaid} />
          <p role="status" className="text-sm text-ink2">
            {said}
          </p>
          <Labelled id={`${id}t`} label="The project's title, where its folder does not say it">
            <TextInput id={`${id}t`} value={title} onChange={(e) => state.setTitle(e.target.value)} />
          </Labelled>
        </div>
      }
      plan={<Hierarchy state={state} />}
      consequence={ready && <DerivedFacts ready={ready} answers={state.answers} onAnswer={state.answer} />}
      ledger={
        <>
          <LedgerWords state={state} />
          {ready && (
            <TextInput
              aria-label="Name of the template"
              value={name}
              onChange={(e) => state.setName(e.target.value)}
              className="w-56"
            />
          )}
          <Button variant="main" disabled={ready === null || name.trim() === ''} onClick={() => void state.take()}>
            Take it into the editor
          </Button>
        </>
      }
    />
  );
}

function Hierarchy({ state: { ready, isUnreadable, lines } }: { state: Derivation }) {
  const [selected, setSelected] = useState('root');
  return ready === null ? (
    <p className="max-w-prose text-ink2">
      {isUnreadable
        ? 'This listing cannot be understood.'
        : 'Give a project that worked: its number, client and title become what is asked for; folders that are alike become one, made once for each entry of a list; numbers in front keep their gaps; file names become conventions.'}
    </p>
  ) : (
    <TrayTree
      label="The derived hierarchy"
      nodes={lines.map((l) => l.tree)}
      selected={selected}
      onSelect={setSelected}
    />
  );
}

function LedgerWords({ state: { trouble, ready, makes, waiting } }: { state: Derivation }) {
  return (
    <p className="flex-1" role="status">
      {trouble !== null ? (
        trouble
      ) : ready ? (
        <>
          <strong className="font-semibold">With its own values it makes {many(makes, 'folder')}.</strong>{' '}
          <span className="text-ink2">It becomes a draft; nothing is in force by it.</span>
        </>
      ) : (
        <span className="text-ink2">{waiting ? 'Looking at the listing…' : 'Deriving changes nothing.'}</span>
      )}
    </p>
  );
}
