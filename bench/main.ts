/**
 * npm run bench [expand|read|prove|explain|learn|templates|start|plans|copies|repairs|carry|intake|packages|flat|check|browser|sending|house|findings|load]: figures with
 * their aims beside them; nothing here passes or fails.
 */
import { benchCarry } from './carry';
import { benchCheck, checkOnce } from './check';
import { benchCopies } from './copies';
import { benchExpand } from './expand';
import { benchExplain } from './explain';
import { benchFlat } from './flat';
import { benchIntake } from './intake';
import { benchFrames, benchLearn } from './learn';
import { benchPackages } from './packages';
import { benchPlans } from './plans';
import { benchProve } from './prove';
import { benchRead, benchReadAny } from './read';
import { benchRepairs } from './repairs';
import { benchStart } from './start';
import { benchTemplates } from './templates';

const BENCHES = {
  expand: benchExpand,
  read: () => {
    benchRead();
    benchReadAny();
  },
  prove: benchProve,
  explain: benchExplain,
  learn: () => {
    benchLearn();
    benchFrames();
  },
  templates: benchTemplates,
  start: benchStart,
  plans: benchPlans,
  copies: benchCopies,
  repairs: benchRepairs,
  carry: benchCarry,
  intake: benchIntake,
  packages: benchPackages,
  flat: benchFlat,
  check: benchCheck,
} as const;
const [first, second = '', third = '2'] = process.argv.slice(2);

if (first === 'check-once') await checkOnce(second, Number(third));
else for (const [name, bench] of Object.entries(BENCHES)) if (first === undefined || first === name) await bench();
