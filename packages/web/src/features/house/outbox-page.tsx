/** The demo's mails: nothing leaves this machine, and what would have been sent is read here. */

import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid } from '../../grid/grid';
import { Heading, Trouble } from '../../ui';
import { houseApi } from './house-api';
import { HouseNav } from './house-nav';

export function OutboxPage() {
  const { data, isError, error, refetch } = houseApi.useOutboxQuery(undefined, { pollingInterval: 5000 });
  const [chosen, setChosen] = useState<readonly string[]>([]);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  const mails = data ?? [];
  const mail = mails.find((m) => String(m.id) === chosen.at(-1)) ?? mails[0];
  return (
    <Columns
      id="house"
      labels={['The house’s lists', 'Outbox', 'The selected mail']}
      given={
        <div className="flex flex-col gap-4">
          <HouseNav />
          <p className="text-sm text-ink2">
            In a demo no mail leaves this machine. In a real installation mails go by the mail server that is
            configured, and nobody reads them here.
          </p>
        </div>
      }
      plan={
        <>
          <h1 className="pb-2 text-xl font-semibold">Outbox</h1>
          <Grid
            id="outbox"
            label="Mails"
            rows={mails}
            keyOf={(m) => String(m.id)}
            chosen={mail === undefined ? [] : [String(mail.id)]}
            onChoose={setChosen}
            empty="No mail was written yet: invite somebody."
            columns={[
              { id: 'to', header: 'To', width: 'minmax(8rem,1fr)', cell: (m) => m.recipient },
              { id: 'subject', header: 'Subject', width: 'minmax(10rem,2fr)', cell: (m) => m.subject },
              { id: 'at', header: 'When', width: '9rem', cell: (m) => ago(m.at) },
            ]}
          />
        </>
      }
      consequence={
        mail && (
          <div className="flex flex-col gap-2">
            <Heading>{mail.subject}</Heading>
            <p className="text-sm break-words whitespace-pre-wrap">{withLinks(mail.body)}</p>
          </div>
        )
      }
      ledger={<p className="flex-1 text-ink2">{many(mails.length, 'mail')}, none of them sent.</p>}
    />
  );
}

function withLinks(text: string) {
  return text.split(/(https?:\/\/\S+)/).map((part, i) =>
    part.startsWith('http') ? (
      <a key={`${i}-${part}`} href={part} className="break-all text-bottle underline">
        {part}
      </a>
    ) : (
      part
    ),
  );
}
