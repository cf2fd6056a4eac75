/** Whose things somebody may touch, beyond what their role may: decided here, for every row of the table. */
import type { Me, Whose } from '@nesting/contract';
import { z } from 'zod';
import { readBatchJob } from '../db/queries/batches/batches';
import { findingsOfOthers } from '../db/queries/checks/finding-people';
import { Refused, type World } from '../flows/world';

interface Touched {
  readonly params: Readonly<Record<string, string>>;
  readonly body: unknown;
}

/** @throws Refused 403 where it is somebody else's. Coordinators may touch everything; who only looks, nothing of these. */
export async function requireTheirs(world: World, me: Me, whose: Whose, { params, body }: Touched): Promise<void> {
  if (me.role === 'coordinator') return;
  switch (whose) {
    case 'house':
    // What is one's own is found by who asks, and by nothing that is asked.
    case 'own':
      return;
    case 'done': {
      const batch = await readBatchJob(world.db, params.batch ?? '');
      if (batch !== null && batch.person !== me.id) throw new Refused('not-your-change');
      return;
    }
    case 'given': {
      const { ids } = z.object({ ids: z.array(z.string()) }).parse(body);
      const others = await findingsOfOthers(world.db, params.id ?? '', ids, me.initials);
      if (others > 0) throw new Refused('not-yours', { findings: others });
      return;
    }
  }
}
