/** About the selected package: what it is of, its checksum, what is wrong with it, the links that open it. */
import type { Me, PackageRow } from '@nesting/contract';
import { cannotGoWords, PACKAGE_KIND_WORDS } from '@nesting/core/words';
import { Link } from 'react-router';
import { many, moment, size } from '../../app/words';
import { CopyButton, Heading } from '../../ui';
import { Archived } from './archived';
import { CameBack } from './came-back';
import { packagesApi } from './packages-api';
import { SendLinks } from './send-links';
import { VerdictList } from './verdict-list';

export function PackageSelected({ row, me }: { row: PackageRow; me: Me }) {
  const { sha256, leftOut, notPacked, failure, actFailure } = row;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{PACKAGE_KIND_WORDS[row.kind]}</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">
            {row.volume}: {row.path}
          </span>
          <CopyButton text={row.path} what="the path" />
        </p>
        <p className="text-ink2">
          Of{' '}
          <Link to={`/projects/${row.project}`} className="text-plum underline">
            {row.number} {row.title}
          </Link>
          {row.purpose === 'archive' ? ', for the archive' : row.recipient === '' ? '' : `, for ${row.recipient}`}
        </p>
        {row.note !== '' && <p className="whitespace-pre-wrap">{row.note}</p>}
      </div>
      {failure !== '' && <p className="text-brick">{failure}</p>}
      {notPacked.length > 0 && (
        <section className="flex flex-col gap-1">
          <Heading>These could not be read</Heading>
          <ul className="font-mono">
            {notPacked.map(({ path, code }) => (
              <li key={path} className="break-all">
                {path} <span className="font-sans text-ink2">{cannotGoWords(code)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {leftOut.length > 0 && (
        <p className="text-ochre">
          {many(leftOut.length, 'file')} could not be read and {leftOut.length === 1 ? 'is' : 'are'} not in it.
        </p>
      )}
      {sha256 !== null && (
        <div className="flex flex-col gap-1">
          <Heading>Its checksum (sha256)</Heading>
          <p className="flex items-start gap-1">
            <span className="min-w-0 flex-1 font-mono break-all">{sha256}</span>
            <CopyButton text={sha256} what="the checksum" />
          </p>
          <p className="text-ink2">
            {row.provedAt === null ? 'Read back when it was written' : `Read again ${moment(row.provedAt)}`}
            {row.isWhole === false ? '' : `, ${many(row.files, 'file')} of ${size(row.bytes)}`}.
          </p>
        </div>
      )}
      {actFailure !== '' && <p className="text-brick">{actFailure}</p>}
      {row.isWhole === false && <VerdictOf id={row.id} />}
      {row.state === 'done' && row.purpose === 'archive' && me.role === 'coordinator' && <Archived row={row} />}
      {row.state === 'done' && row.kind !== 'bag' && me.role === 'coordinator' && <SendLinks row={row} />}
      {row.state === 'done' && row.purpose === 'handover' && me.role === 'coordinator' && <CameBack row={row} />}
      {row.state === 'done' && row.kind === 'bag' && (
        <p className="text-ink2">A folder cannot be sent by a link. Pack it as a zip for that.</p>
      )}
    </div>
  );
}

function VerdictOf({ id }: { id: string }) {
  const { data } = packagesApi.useVerdictQuery(id);
  return data == null ? null : <VerdictList verdict={data} />;
}
